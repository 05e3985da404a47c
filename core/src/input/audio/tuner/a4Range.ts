/** Where A4 may be set, in hertz. Common practice, no source. */
export const A4_RANGE = { low: 415, high: 466, usual: 440 }
