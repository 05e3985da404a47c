/** In every runtime that the core meets (browser, worker, Node), but not in the ES library types. */
declare class TextDecoder {
  constructor(label?: string, options?: { fatal?: boolean })
  decode(input: Uint8Array): string
}
declare class TextEncoder {
  encode(input: string): Uint8Array
}

declare function atob(text: string): string
declare function btoa(text: string): string
