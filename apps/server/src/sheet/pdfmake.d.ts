declare module 'pdfmake' {
  /** A piece of a document: text, list, table or a stack of them; the library ships no types of its own. */
  export type Content = string | { readonly [key: string]: unknown } | readonly Content[];

  export interface DocumentDefinition {
    readonly info?: Readonly<Record<string, string>>;
    readonly pageSize?: string;
    readonly pageMargins?: readonly number[];
    readonly defaultStyle?: Readonly<Record<string, unknown>>;
    readonly styles?: Readonly<Record<string, Readonly<Record<string, unknown>>>>;
    readonly content: readonly Content[];
    readonly footer?: (page: number, pages: number) => Content;
  }

  interface Pdfmake {
    setFonts(fonts: Readonly<Record<string, Readonly<Record<string, string>>>>): void;
    setLocalAccessPolicy(allowed: (path: string) => boolean): void;
    setUrlAccessPolicy(allowed: (url: string) => boolean): void;
    createPdf(definition: DocumentDefinition): { getBuffer(): Promise<Buffer> };
  }
  const pdfmake: Pdfmake;
  export default pdfmake;
}
