type Child = Node | string

/** An element with its attributes, handlers and children. Texts are texts: nothing in them is markup. */
export function h<K extends keyof HTMLElementTagNameMap>(
  tag: K,
  attributes: Readonly<Record<string, string | number | boolean | ((event: Event) => void)>> = {},
  ...children: readonly Child[]
): HTMLElementTagNameMap[K] {
  const element = document.createElement(tag)
  for (const [name, value] of Object.entries(attributes)) {
    if (typeof value === 'function') element.addEventListener(name, value)
    else if (typeof value === 'boolean') element.toggleAttribute(name, value)
    else element.setAttribute(name, String(value))
  }
  element.append(...children)
  return element
}
