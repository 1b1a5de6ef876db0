export { medium, MEDIUM_KEYS, type MediumKey, PARAMETERS } from './media';
export { substrate, SUBSTRATE_KEYS, type SubstrateKey } from './substrates';
export {
  type Medium,
  type MediumKind,
  type MediumParameter,
  type ParameterInfo,
  type Provenance,
  type Substrate,
} from './types';
