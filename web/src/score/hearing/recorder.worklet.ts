/** A piece of what is heard, and the sample of the audio clock at which it begins. */
export interface HeardPiece {
  readonly frame: number
  readonly samples: Float32Array
}

// The audio thread's globals are in no TypeScript library.
declare const currentFrame: number
declare function registerProcessor(name: string, processor: unknown): void
declare class AudioWorkletProcessor {
  readonly port: MessagePort
}

/** Samples that are sent at once: about a tenth of a second. */
const PIECE = 4096

/** Hands what comes in to the page, piece by piece. */
class RecorderProcessor extends AudioWorkletProcessor {
  private piece = new Float32Array(PIECE)
  private filled = 0

  process(inputs: Float32Array[][]): boolean {
    const [mono] = inputs[0] ?? []
    // A source that is silent has no channel: time goes on.
    const block = mono ?? new Float32Array(128)
    if (this.filled + block.length > PIECE) this.send()
    this.piece.set(block, this.filled)
    this.filled += block.length
    return true
  }

  private send(): void {
    const piece: HeardPiece = { frame: currentFrame - this.filled, samples: this.piece.slice(0, this.filled) }
    this.port.postMessage(piece, [piece.samples.buffer])
    this.filled = 0
  }
}

registerProcessor('velvet-recorder', RecorderProcessor)
