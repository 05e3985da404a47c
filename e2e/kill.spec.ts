import { expect, test } from '@playwright/test'
import { seededChance } from './chance.ts'
import { killRun } from './kill/killRun.ts'

test('a browser that is ended in mid-write, in each way of working, loses nothing that was acknowledged', async ({
  baseURL,
}) => {
  expect(await killRun(baseURL!, 4, seededChance(7))).toEqual([])
})
