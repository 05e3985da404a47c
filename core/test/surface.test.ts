import { readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { describe, expect, it } from 'vitest'

const core = fileURLToPath(new URL('..', import.meta.url))
const entries = Object.entries(
  (JSON.parse(readFileSync(`${core}/package.json`, 'utf8')) as { exports: Record<string, string> }).exports,
)

/** The names that an entry point gives, as its file lists them; types are marked. */
function namesIn(file: string): string[] {
  const text = readFileSync(`${core}/${file}`, 'utf8')
  const lists = [...text.matchAll(/^export (type )?\{([^}]*)\} from/gm)].flatMap(([, type, list]) =>
    list!
      .split(',')
      .map((name) => name.trim())
      .filter(Boolean)
      .map((name) => (type ? `type ${name}` : name)),
  )
  const own = [...text.matchAll(/^export (?:async )?(?:function\*?|class|const) (\w+)/gm)].map((m) => m[1]!)
  const ownTypes = [...text.matchAll(/^export (?:interface|type) (\w+)/gm)].map((m) => `type ${m[1]}`)
  return [...lists, ...own, ...ownTypes].sort()
}

describe('the surface of the core', () => {
  it('is what it was: another one is a decision (npx vitest run -u core/test/surface.test.ts)', async () => {
    const surface = entries.map(([entry, file]) => `${[entry, ...namesIn(file)].join('\n  ')}\n`)
    await expect(surface.join('\n')).toMatchFileSnapshot('surface.txt')
  })

  it.each(entries)('%s gives every value that it lists, and lists none by a star', async (_, file) => {
    const given = (await import(`${core}/${file}`)) as Record<string, unknown>
    const values = namesIn(file)
      .filter((name) => !name.startsWith('type '))
      .map((name) => name.split(' as ').at(-1)!)
    expect(Object.keys(given).sort()).toEqual(values.sort())
    expect(readFileSync(`${core}/${file}`, 'utf8')).not.toMatch(/^export \*/m)
  })
})
