export * from './systems.ts'
export * from '../notation/staff.ts'
