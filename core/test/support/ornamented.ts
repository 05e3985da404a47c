import {
  arranging,
  audit,
  finish,
  finishedTabOf,
  guitarSetup,
  tabJson,
  USUAL_SCHOOL,
  wholeTune,
  type Level,
  type Lock,
  type Ornament,
  type Style,
  type TuneDoc,
} from '../../src/index.ts'

/** A tune arranged with ornaments: what was made, as JSON, and what the audit says of it. */
export function ornamented(
  tune: TuneDoc,
  style: Style,
  level: Level,
  ornament: Ornament,
  { setup = guitarSetup(), locks = [] as Lock[], school = {} } = {},
) {
  const regions = wholeTune(tune, style, level, { ...USUAL_SCHOOL, ...school }).map((r) => ({
    ...r,
    ornament,
  }))
  const arranged = finish(arranging(tune, setup, regions, { locks }))
  const json = tabJson(tune, setup, arranged.plan, arranged.layer, [], 0)
  return { ...arranged, json, regions, report: audit(finishedTabOf(json)) }
}
