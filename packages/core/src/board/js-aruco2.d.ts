/** The part of js-aruco2 2.0 that is used. */
declare module 'js-aruco2' {
  interface Seen {
    readonly id: number;
    readonly hammingDistance: number;
    readonly corners: readonly { readonly x: number; readonly y: number }[];
  }
  const aruco: {
    readonly AR: {
      readonly Dictionary: new (name: string) => { readonly codeList: readonly string[] };
      readonly Detector: new (options: {
        readonly dictionaryName: string;
        readonly maxHammingDistance: number;
      }) => {
        detect(image: {
          readonly width: number;
          readonly height: number;
          readonly data: Uint8ClampedArray;
        }): readonly Seen[];
      };
    };
  };
  export default aruco;
}
