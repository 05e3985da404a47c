/** A key as it is printed on the keyboard: `Mod+K` is Ctrl+K. */
export const shownKeys = (keys: string): string => keys.replace('Mod', 'Ctrl')
