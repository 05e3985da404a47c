import { configure } from '@testing-library/react'

// The database takes the browser's storage where it is first read, and all tests of a worker share it.
import 'fake-indexeddb/auto'

/** Milliseconds that a test waits for a page: a busy machine may take long. */
configure({ asyncUtilTimeout: 20_000 })
