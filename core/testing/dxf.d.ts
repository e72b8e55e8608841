/** Only what the tests use of it. */
declare module 'dxf' {
  export class Helper {
    constructor(text: string);
    toPolylines(): {
      readonly polylines: readonly { readonly vertices: readonly (readonly [x: number, y: number])[] }[];
    };
  }
}
