import { HOLDS } from '../../ui/holds.ts'

/** A control of the page that is open, as the palette finds it. */
export interface FoundControl {
  readonly name: string
  /** What it is unfolded from, by name; absent where it stands on the page. */
  readonly within?: string
  /** Presses it, or puts the keyboard on it where it is a field or still folded. */
  readonly use: () => void
}

const CONTROLS =
  'button, a[href], input:not([type="file"]):not([type="hidden"]), select, textarea, summary, [role="textbox"], [role="combobox"], [role="slider"], [role="switch"]'

/**
 * Every control within a part of the page by its name as it is read out, in the order of the page. Left out are what is
 * disabled or drawn (places of a neck, notes of a sheet), and cells of a series, which are reached by their own keys.
 */
export function controlsIn(root: HTMLElement): FoundControl[] {
  const found = new Map<string, FoundControl>()
  for (const control of root.querySelectorAll<HTMLElement>(CONTROLS)) {
    if (!isOffered(control)) continue
    const name = nameOf(control)
    if (name === '' || found.has(name)) continue
    found.set(name, { name, use: () => press(control) })
    for (const inner of (control.getAttribute(HOLDS) ?? '').split('\n').filter(Boolean))
      if (!found.has(inner))
        found.set(inner, { name: inner, within: name, use: () => unfold(control, inner) })
  }
  return [...found.values()]
}

function isOffered(control: HTMLElement): boolean {
  if (control.matches(':disabled, [data-disabled], [aria-hidden="true"]')) return false
  if (control.closest('svg, [inert], [aria-hidden="true"], [data-series]')) return false
  return control.checkVisibility() || foldOf(control) !== null
}

/** The fold that hides a control, if one does. */
const foldOf = (control: HTMLElement): HTMLDetailsElement | null =>
  control.tagName === 'SUMMARY' ? null : control.closest<HTMLDetailsElement>('details:not([open])')

/** The name of a control as it is read out; what is chosen among several says of what. */
export function nameOf(control: HTMLElement): string {
  const own = ownName(control)
  const group = control.matches('input[type="radio"]') ? control.closest('[role="radiogroup"]') : null
  const of = group ? ownName(group as HTMLElement) : ''
  return of && !own.startsWith(of) ? `${of}: ${own}` : own
}

function ownName(control: HTMLElement): string {
  const by = control.getAttribute('aria-labelledby')
  const labelled = by
    ?.split(/\s+/)
    .map((id) => document.getElementById(id)?.textContent ?? '')
    .join(' ')
  const labels =
    control instanceof HTMLInputElement ? [...(control.labels ?? [])].map((l) => l.textContent) : []
  const names = [
    control.getAttribute('aria-label'),
    labelled,
    labels.join(' '),
    // As it is shown: what stands apart is told apart.
    control.matches('input, select, textarea') ? '' : control.innerText || control.textContent,
    control.title,
    control.getAttribute('placeholder'),
  ]
  return (names.find((n) => n && n.trim() !== '') ?? '').replace(/\s+/g, ' ').trim()
}

function press(control: HTMLElement): void {
  for (let fold = foldOf(control); fold; fold = foldOf(control)) fold.open = true
  control.scrollIntoView({ block: 'nearest' })
  control.focus()
  const types = !control.matches(
    'button, a, summary, input[type="checkbox"], input[type="radio"], input[role="combobox"]',
  )
  if (!types) control.click()
}

/** How long what is unfolded may take to appear; and for how many frames the keyboard must stay: what unfolds takes it first. */
const UNFOLDS_WITHIN_MS = 3000
const STAYS_FRAMES = 15

/** Unfolds what a button holds, and puts the keyboard on the control that is called so, unless somebody goes on meanwhile. */
function unfold(button: HTMLElement, name: string): void {
  press(button)
  const until = performance.now() + UNFOLDS_WITHIN_MS
  const goesOn = new AbortController()
  for (const act of ['keydown', 'pointerdown'])
    window.addEventListener(act, () => goesOn.abort(), { capture: true, signal: goesOn.signal })
  let stayed = 0
  const look = () => {
    if (goesOn.signal.aborted) return
    const unfolded = [...document.body.querySelectorAll<HTMLElement>(`${CONTROLS}, [role="menuitem"]`)]
    const control = unfolded.find((c) => isCalled(c, name) && c.checkVisibility())
    stayed = control && document.activeElement === control ? stayed + 1 : 0
    control?.focus()
    if (stayed < STAYS_FRAMES && performance.now() < until) requestAnimationFrame(look)
    else goesOn.abort()
  }
  look()
}

/** True for the control of this name, and for the chosen one of a group of it. */
const isCalled = (control: HTMLElement, name: string): boolean =>
  nameOf(control) === name || (control.matches(':checked') && nameOf(control).startsWith(`${name}: `))
