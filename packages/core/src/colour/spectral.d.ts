/** The part of spectral.js 3.0 that mixing uses; it ships no types. */
declare module 'spectral.js' {
  namespace spectral {
    class Color {
      constructor(css: string);
      toString(options: { format: 'hex' }): string;
    }
    function mix(...colours: [Color, number][]): Color;
  }
  export default spectral;
}
