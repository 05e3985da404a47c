import { guitarSetup } from '../../src/instrument/index.ts'
import {
  USUAL_SCHOOL,
  type Level,
  type Lock,
  type Ornament,
  type Style,
  type TuneDoc,
} from '../../src/document/index.ts'
import { arranging, wholeTune } from '../../src/arrange/index.ts'
import { audit } from '../../src/audit/index.ts'
import { finishedTabOf, tabJson } from '../../src/output/index.ts'
import { finish } from '../../src/turns.ts'

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
