/** What the tests use of the library that draws and plays scores; it ships no types for these entries. */
declare module 'verovio/wasm' {
  export default function createVerovioModule(): Promise<object>
}
declare module 'verovio/esm' {
  export const LOG_OFF: number
  export function enableLog(level: number, module: object): void
  export class VerovioToolkit {
    constructor(module: object)
    loadData(data: string): boolean
    renderToMIDI(): string
  }
}
