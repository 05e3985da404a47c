/** A mono WAV file of 16 bits: `sample` gives each sample, −1 to 1, by its time in seconds. */
export declare function wavFile(seconds: number, sample: (t: number) => number): Buffer
