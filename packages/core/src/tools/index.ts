export { DISTRESS_TOOLS, type DistressTool, type Tool, type ToolAction, toolOf } from './tools';
