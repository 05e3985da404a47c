/** A sound of speech: resonances of the mouth in hertz, how much voice and how much breath, how long. */
interface Phone {
  readonly formants: readonly [number, number, number]
  readonly voice: number
  /** Breath through a band in hertz. */
  readonly breath?: { readonly from: number; readonly loud: number }
  readonly seconds: number
}

const vowel = (formants: Phone['formants'], seconds = 0.12): Phone => ({ formants, voice: 1, seconds })
const breath = (from: number, loud: number, seconds: number): Phone => ({
  formants: [500, 1500, 2500],
  voice: 0,
  breath: { from, loud },
  seconds,
})

/** Resonances of vowels as men speak them (G. E. Peterson and H. L. Barney, "Control methods used in a study of the vowels", 1952; from memory). */
const PHONES = {
  uh: vowel([640, 1190, 2390], 0.13),
  oo: vowel([300, 870, 2240], 0.17),
  ee: vowel([270, 2290, 3010], 0.15),
  or: vowel([570, 840, 2410], 0.19),
  ah: vowel([730, 1090, 2440], 0.1),
  i: vowel([390, 1990, 2550], 0.09),
  e: vowel([530, 1840, 2480], 0.1),
  w: { formants: [300, 610, 2200], voice: 0.7, seconds: 0.05 },
  n: { formants: [280, 1700, 2600], voice: 0.45, seconds: 0.09 },
  r: { formants: [310, 1060, 1380], voice: 0.7, seconds: 0.05 },
  v: { formants: [250, 1100, 2100], voice: 0.35, breath: { from: 3000, loud: 0.08 }, seconds: 0.05 },
  t: breath(3500, 0.6, 0.03),
  k: breath(1800, 0.6, 0.03),
  th: breath(4500, 0.2, 0.06),
  f: breath(4000, 0.2, 0.06),
  s: breath(5500, 0.4, 0.09),
} satisfies Readonly<Record<string, Phone>>

type PhoneName = keyof typeof PHONES

/** English numbers, as sounds. */
const WORDS: readonly (readonly PhoneName[])[] = [
  ['w', 'uh', 'n'],
  ['t', 'oo'],
  ['th', 'r', 'ee'],
  ['f', 'or'],
  ['f', 'ah', 'i', 'v'],
  ['s', 'i', 'k', 's'],
  ['s', 'e', 'v', 'n'],
  ['e', 'i', 't'],
]

/** The highest number that is spoken; what is beyond has a click. */
export const COUNTED_TO = WORDS.length

/** Pitch of the voice in hertz at the beginning and the end of a word; widths of its resonances. No source. */
const PITCH = { from: 126, to: 104 }
const WIDTHS = [70, 100, 140] as const
const LOUD = 0.5

/** A resonance: a two-pole filter (J. O. Smith, "Introduction to Digital Filters"). */
class Resonance {
  private a = 0
  private b = 0

  constructor(
    private readonly rate: number,
    private readonly width: number,
  ) {}

  next(x: number, hertz: number): number {
    const radius = Math.exp((-Math.PI * this.width) / this.rate)
    const turn = 2 * radius * Math.cos((2 * Math.PI * hertz) / this.rate)
    const y = (1 - radius) * x + turn * this.a - radius * radius * this.b
    this.b = this.a
    this.a = y
    return y
  }
}

/**
 * A number from 1 to 8 as it is counted aloud: a source of pulses through three resonances that move from sound to sound (after D. H. Klatt,
 * "Software for a cascade/parallel formant synthesizer", 1980), with breath for what has no voice.
 * @param rate samples a second
 */
export function countedAloud(number: number, rate: number): Float32Array {
  const phones = (WORDS[number - 1] ?? []).map((name): Phone => PHONES[name])
  const seconds = phones.reduce((sum, p) => sum + p.seconds, 0)
  const out = new Float32Array(Math.ceil(seconds * rate))
  const mouth = WIDTHS.map((width) => new Resonance(rate, width))
  let phase = 0
  let noise = 1
  let low = 0
  let at = 0
  phones.forEach((phone, n) => {
    const next = phones[n + 1] ?? phone
    const count = Math.min(out.length - at, Math.round(phone.seconds * rate))
    for (let i = 0; i < count; i++, at++) {
      // The mouth is on its way to the next sound in the last third.
      const way = Math.max(0, (i / count - 0.67) / 0.33)
      const hertz = PITCH.from + (PITCH.to - PITCH.from) * (at / out.length)
      phase += hertz / rate
      const pulse = phase >= 1 ? 1 : 0
      if (pulse) phase -= 1
      const voice = phone.voice + (next.voice - phone.voice) * way
      let y = 0
      mouth.forEach((m, k) => {
        const own = phone.formants[k]! + (next.formants[k]! - phone.formants[k]!) * way
        y += m.next(pulse * voice * 40, own) / (k + 1)
      })
      noise = (Math.imul(noise, 1_103_515_245) + 12_345) & 0x7fffffff
      const white = noise / 0x40000000 - 1
      const { from = 0, loud = 0 } = phone.breath ?? {}
      low += (white - low) * Math.min(1, (2 * Math.PI * from) / rate)
      out[at] = y + loud * (white - low)
    }
  })
  return shaped(out, rate)
}

/** As loud as every other word, without a click at its ends. */
function shaped(word: Float32Array, rate: number): Float32Array {
  const edge = 0.008 * rate
  const loudest = word.reduce((most, x) => Math.max(most, Math.abs(x)), 1e-9)
  return word.map((x, i) => (LOUD * x * Math.min(1, i / edge, (word.length - i) / (3 * edge))) / loudest)
}
