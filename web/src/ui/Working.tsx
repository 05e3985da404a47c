import { Center, Loader } from '@mantine/core'

/** Stands where something is about to be shown. */
export const Working = () => (
  <Center h="60%">
    <Loader color="plum" />
  </Center>
)
