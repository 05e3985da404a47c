/** Gives the keys back to the sheet, after something beside it was typed. */
export const focusSheet = (): void => {
  document.querySelector<HTMLElement>('[data-sheet]')?.focus({ preventScroll: true })
}
