import { present } from '@velvet-porch/core/invariant'
import { defaultKeymap, history, historyKeymap } from '@codemirror/commands'
import { setDiagnostics, type Diagnostic } from '@codemirror/lint'
import { Annotation, EditorState } from '@codemirror/state'
import { EditorView, highlightActiveLine, keymap, lineNumbers } from '@codemirror/view'
import type { Problem } from '@velvet-porch/core/input'
import { useEffect, useImperativeHandle, useRef, type Ref } from 'react'
import css from './AbcEditor.module.css'

export interface AbcEditorHandle {
  goTo: (line: number, column: number) => void
}

interface Props {
  readonly text: string
  readonly label: string
  readonly problems: readonly Problem[]
  /** What is said of a problem, on one line. */
  readonly words: (problem: Problem) => string
  readonly onText: (text: string) => void
  readonly handle: Ref<AbcEditorHandle>
}

/** Marks changes that come from the document (undo, another tab), not from typing. */
const fromOutside = Annotation.define<boolean>()

/** The ABC text with problems underlined where they stand. */
export function AbcEditor({ text, label, problems, words, onText, handle }: Props) {
  const host = useRef<HTMLDivElement>(null)
  const view = useRef<EditorView | undefined>(undefined)
  const report = useRef(onText)
  useEffect(() => {
    report.current = onText
  })
  const initial = useRef(text)
  useEffect(() => {
    const editor = new EditorView({
      parent: present(host.current),
      state: EditorState.create({
        doc: initial.current,
        extensions: [
          lineNumbers(),
          highlightActiveLine(),
          history(),
          keymap.of([...defaultKeymap, ...historyKeymap]),
          EditorView.lineWrapping,
          EditorView.contentAttributes.of({ 'aria-label': label }),
          EditorView.updateListener.of((u) => {
            if (u.docChanged && !u.transactions.some((tr) => tr.annotation(fromOutside)))
              report.current(u.state.doc.toString())
          }),
        ],
      }),
    })
    view.current = editor
    return () => editor.destroy()
  }, [label])
  useEffect(() => {
    const editor = view.current
    if (!editor || editor.state.doc.toString() === text) return
    editor.dispatch({
      changes: { from: 0, to: editor.state.doc.length, insert: text },
      annotations: fromOutside.of(true),
    })
  }, [text])
  useEffect(() => {
    const editor = view.current
    if (!editor) return
    const { doc } = editor.state
    const marks = problems
      .filter((p) => p.severity !== 'note' && p.line <= doc.lines)
      .map((p): Diagnostic => {
        const line = doc.line(p.line)
        const from = Math.min(line.from + p.column - 1, line.to)
        return {
          from,
          to: Math.min(Math.max(from + 1, from), doc.length),
          severity: p.severity === 'error' ? 'error' : 'warning',
          message: words(p),
        }
      })
    editor.dispatch(setDiagnostics(editor.state, marks))
  }, [problems, text, words])
  useImperativeHandle(handle, () => ({
    goTo: (line, column) => {
      const editor = view.current
      if (!editor || line > editor.state.doc.lines) return
      const at = editor.state.doc.line(line)
      editor.dispatch({ selection: { anchor: Math.min(at.from + column - 1, at.to) }, scrollIntoView: true })
      editor.focus()
    },
  }))
  return <div ref={host} className={css['tune-editor']} />
}
