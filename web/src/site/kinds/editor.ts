import {
  autocompletion,
  type Completion,
  type CompletionContext,
  type CompletionResult,
} from '@codemirror/autocomplete';
import { completionKeymap } from '@codemirror/autocomplete';
import { defaultKeymap, history, historyKeymap, indentWithTab } from '@codemirror/commands';
import { yaml } from '@codemirror/lang-yaml';
import { HighlightStyle, bracketMatching, indentUnit, syntaxHighlighting } from '@codemirror/language';
import { lintGutter, lintKeymap, setDiagnostics, type Diagnostic } from '@codemirror/lint';
import { highlightSelectionMatches, searchKeymap } from '@codemirror/search';
import { Compartment, EditorState, type Extension } from '@codemirror/state';
import {
  EditorView,
  drawSelection,
  highlightActiveLine,
  highlightActiveLineGutter,
  hoverTooltip,
  keymap,
  lineNumbers,
} from '@codemirror/view';
import { tags } from '@lezer/highlight';
import { placeAt } from './place';
import { documentation, keys, words, type Schema } from './schema';
import type { KindFault } from './types';

/** Colours are those of the theme: custom properties reach into a shadow root. */
const THEME = EditorView.theme({
  '&': { color: 'var(--ink)', backgroundColor: 'var(--sheet)', fontSize: '13px', height: '100%' },
  '&.cm-focused': { outline: '2px solid var(--lamp)', outlineOffset: '1px' },
  '.cm-scroller': { fontFamily: 'var(--font-mono)', lineHeight: '1.45', overflow: 'auto' },
  '.cm-content': { caretColor: 'var(--ink)' },
  '.cm-cursor': { borderLeftColor: 'var(--ink)' },
  '.cm-gutters': { color: 'var(--ink2)', backgroundColor: 'var(--group)', borderRight: '1px solid var(--line)' },
  '.cm-activeLine, .cm-activeLineGutter': { backgroundColor: 'color-mix(in srgb, var(--lamp2) 45%, transparent)' },
  '&.cm-focused .cm-selectionBackground, .cm-selectionBackground': { backgroundColor: 'var(--proof2) !important' },
  '.cm-tooltip': { color: 'var(--ink)', backgroundColor: 'var(--sheet)', border: '1px solid var(--line)' },
  '.cm-tooltip-autocomplete ul li': { fontFamily: 'var(--font-mono)', padding: '2px 6px' },
  '.cm-tooltip-autocomplete ul li[aria-selected]': { color: 'var(--ink)', backgroundColor: 'var(--lamp2)' },
  '.cm-completionDetail': { color: 'var(--ink2)', fontStyle: 'normal', fontFamily: 'var(--font-sans)' },
  '.cm-tooltip-hover, .cm-completionInfo': { padding: '4px 8px', maxWidth: '46ch', fontFamily: 'var(--font-sans)' },
  '.cm-diagnostic-error': { borderLeft: '4px solid var(--fault)' },
  '.cm-lintRange-error': {
    backgroundImage: 'none',
    textDecoration: 'underline wavy var(--fault)',
    textUnderlineOffset: '3px',
  },
  '.cm-panels': { color: 'var(--ink)', backgroundColor: 'var(--group)' },
});

const COLOURS = HighlightStyle.define([
  { tag: [tags.propertyName, tags.definition(tags.propertyName)], color: 'var(--proof)' },
  { tag: [tags.string, tags.special(tags.string)], color: 'var(--lamp-ink)' },
  { tag: [tags.comment, tags.lineComment], color: 'var(--ink2)', fontStyle: 'italic' },
  { tag: [tags.punctuation, tags.separator, tags.squareBracket, tags.brace], color: 'var(--ink2)' },
]);

export interface Texts {
  label: string;
  required: string;
}

/** What may be typed where the cursor stands, from the published form of descriptions. */
export function propose(schema: Schema, text: string, position: number, texts: Texts): CompletionResult | null {
  const place = placeAt(text, position);
  const options: Completion[] = (place.key ? keys(schema, place.path) : words(schema, place.path)).map((each) => ({
    label: each.name,
    type: place.key ? 'property' : 'constant',
    info: each.about || undefined,
    detail: each.required ? texts.required : undefined,
    boost: each.required ? 1 : 0,
    apply: place.key ? `${each.name}: ` : each.name,
  }));
  return options.length === 0 ? null : { from: position - place.word.length, options, validFor: /^[\w-]*$/ };
}

/** The editor of a description, in a shadow root: the page's policy lets no library add styles to the page itself. */
export class KindEditorView {
  private readonly view: EditorView;
  private readonly writable = new Compartment();
  private silent = false;

  constructor(
    root: ShadowRoot,
    text: string,
    schema: () => Schema | null,
    texts: Texts,
    typed: (text: string) => void,
  ) {
    const source = (context: CompletionContext): CompletionResult | null => {
      const known = schema();
      const word = context.matchBefore(/[\w-]*/);
      if (!known || (!context.explicit && !word?.text)) return null;
      return propose(known, context.state.doc.toString(), context.pos, texts);
    };
    const hover = hoverTooltip((view, position) => {
      const known = schema();
      const line = view.state.doc.lineAt(position);
      let end = position - line.from;
      while (end < line.length && /[\w-]/.test(line.text[end]!)) end++;
      if (!known || line.text[end] !== ':') return null;
      const said = documentation(known, placeAt(view.state.doc.toString(), line.from + end + 2).path);
      return said === ''
        ? null
        : {
            pos: position,
            create: () => {
              const dom = document.createElement('div');
              dom.textContent = said;
              return { dom };
            },
          };
    });
    const extensions: Extension[] = [
      lineNumbers(),
      lintGutter(),
      history(),
      drawSelection(),
      highlightActiveLine(),
      highlightActiveLineGutter(),
      highlightSelectionMatches(),
      bracketMatching(),
      EditorView.lineWrapping,
      indentUnit.of('  '),
      yaml(),
      syntaxHighlighting(COLOURS),
      autocompletion({ override: [source], icons: false }),
      hover,
      THEME,
      // Escape, then Tab leaves the editor, as its documentation on accessibility asks for
      keymap.of([
        ...completionKeymap,
        ...searchKeymap,
        ...historyKeymap,
        ...lintKeymap,
        ...defaultKeymap,
        indentWithTab,
      ]),
      EditorView.contentAttributes.of({
        'aria-label': texts.label,
        id: 'kind-text',
        spellcheck: 'false',
        tabindex: '0',
      }),
      EditorView.updateListener.of((update) => {
        if (update.docChanged && !this.silent) typed(update.state.doc.toString());
      }),
      this.writable.of(EditorState.readOnly.of(false)),
    ];
    this.view = new EditorView({ state: EditorState.create({ doc: text, extensions }), parent: root, root });
  }

  /** Shows another text, unless it is already shown. */
  show(text: string): void {
    if (text === this.view.state.doc.toString()) return;
    this.silent = true;
    this.view.dispatch({ changes: { from: 0, to: this.view.state.doc.length, insert: text } });
    this.silent = false;
  }

  lock(locked: boolean): void {
    this.view.dispatch({ effects: this.writable.reconfigure(EditorState.readOnly.of(locked)) });
  }

  /** Marks faults at their places; a place that is no longer there is left out. */
  mark(faults: KindFault[]): void {
    const doc = this.view.state.doc;
    const diagnostics: Diagnostic[] = faults
      .filter((fault) => fault.line >= 1 && fault.line <= doc.lines)
      .map((fault) => {
        const line = doc.line(fault.line);
        const from = Math.min(line.from + fault.column - 1, line.to);
        return { from, to: line.to, severity: 'error', message: fault.reason };
      });
    this.view.dispatch(setDiagnostics(this.view.state, diagnostics));
  }

  goTo(line: number, column: number): void {
    const doc = this.view.state.doc;
    const at = doc.line(Math.min(Math.max(line, 1), doc.lines));
    const from = Math.min(at.from + column - 1, at.to);
    this.view.dispatch({ selection: { anchor: at.to, head: from }, scrollIntoView: true });
    this.view.focus();
  }

  close(): void {
    this.view.destroy();
  }
}
