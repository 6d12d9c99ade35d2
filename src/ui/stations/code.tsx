"use client";
import { defaultKeymap, history, historyKeymap } from "@codemirror/commands";
import { cpp } from "@codemirror/lang-cpp";
import { python } from "@codemirror/lang-python";
import { foldGutter, foldKeymap, HighlightStyle, indentUnit, syntaxHighlighting } from "@codemirror/language";
import { highlightSelectionMatches, search, searchKeymap } from "@codemirror/search";
import { EditorState, Transaction, type ChangeSpec, type Text } from "@codemirror/state";
import { Decoration, drawSelection, EditorView, highlightSpecialChars, keymap, lineNumbers } from "@codemirror/view";
import { useCallback, useEffect, useRef } from "react";
import { tags } from "@lezer/highlight";
import { pageNonce } from "@/ui/shared/nonce";
import { draftKey, drafts } from "@/ui/state/drafts";

const LOOK = EditorView.theme({
  "&": {
    fontSize: "13.5px",
    border: "1px solid var(--line)",
    maxHeight: "calc(100dvh - 12rem)",
    background: "var(--paper)",
    color: "var(--ink)",
  },
  ".cm-scroller": { fontFamily: "var(--font-mono)", overflow: "auto" },
  ".cm-gutters": { background: "var(--paper)", color: "var(--soft)", border: "none" },
  ".cm-activeLine, .cm-activeLineGutter": { background: "transparent" },
  ".cm-own": { background: "var(--sheet)", boxShadow: "inset 3px 0 0 var(--accent)" },
  ".cm-cursor": { borderLeftColor: "var(--ink)" },
});

/** Few inks, all readable on both papers. */
const INKS = HighlightStyle.define([
  { tag: tags.comment, color: "var(--soft)", fontStyle: "italic" },
  { tag: [tags.keyword, tags.processingInstruction], color: "var(--accent)", fontWeight: "700" },
  { tag: [tags.string, tags.special(tags.string)], color: "var(--good)" },
  { tag: [tags.number, tags.bool, tags.null], color: "var(--note)" },
]);

const BEGINS = />>> your code: \w+/;
const ENDS = /<<< your code/;

/** The lines between the marks: the first and the last of each place, both of them the person's. */
function ownLines(doc: Text): { first: number; last: number }[] {
  const out: { first: number; last: number }[] = [];
  let first = 0;
  for (let n = 1; n <= doc.lines; n++) {
    const { text } = doc.line(n);
    if (BEGINS.test(text)) first = n + 1;
    else if (ENDS.test(text) && first) {
      if (n > first) out.push({ first, last: n - 1 });
      first = 0;
    }
  }
  return out;
}

/** Every place has a line to write on, as deep as its marks stand. */
const withRoom = (text: string) =>
  text.replace(/^([ \t]*)(.*>>> your code: .*\n)(?=[ \t]*(?:\/\/|#) <<< your code)/gm, "$1$2$1\n");

/** Nothing but what stands between the marks can be changed. */
const onlyOwn = EditorState.changeFilter.of((tr) => {
  const doc = tr.startState.doc;
  const free = ownLines(doc).map((l) => [doc.line(l.first).from, doc.line(l.last).to] as const);
  let ok = true;
  tr.changes.iterChanges((from, to) => {
    ok &&= free.some(([a, b]) => from >= a && to <= b);
  });
  return ok;
});

const marked = EditorView.decorations.compute(["doc"], (state) =>
  Decoration.set(
    ownLines(state.doc).flatMap(({ first, last }) =>
      Array.from({ length: last - first + 1 }, (_, i) =>
        Decoration.line({ class: "cm-own" }).range(state.doc.line(first + i).from),
      ),
    ),
  ),
);

/** What turns one text into another, line by line where both have as many: what stays is neither read nor drawn anew. */
function changesBetween(was: Text, text: string): ChangeSpec[] {
  const lines = text.split("\n");
  if (lines.length !== was.lines) {
    const old = was.toString();
    let from = 0;
    while (from < old.length && old[from] === text[from]) from++;
    let end = 0;
    const most = Math.min(old.length, text.length) - from;
    while (end < most && old[old.length - 1 - end] === text[text.length - 1 - end]) end++;
    return [{ from, to: old.length - end, insert: text.slice(from, text.length - end) }];
  }
  return lines.flatMap((insert, i) => {
    const line = was.line(i + 1);
    return line.text === insert ? [] : [{ from: line.from, to: line.to, insert }];
  });
}

/** A generated file with line numbers; what stands between its marks can be written, and is saved when it is left. */
export function Code({ path, text, save }: { path: string; text: string; save(text: string): void }) {
  const box = useRef<HTMLDivElement>(null);
  const keep = useRef(save);
  const now = useRef<EditorView | null>(null);
  const start = withRoom(text);
  const open = BEGINS.test(start);
  /** The file as it is written now, and as it stands in the view: what differs from that is the person's. */
  const latest = useRef(start);
  const given = useRef(start);
  useEffect(() => {
    keep.current = save;
    latest.current = start;
  });
  const done = useCallback(
    (view: EditorView) => {
      const written = view.state.doc.toString();
      drafts.settle(draftKey(path));
      if (written !== given.current) keep.current(written);
    },
    [path],
  );
  // A file that is written anew changes where it changed; another file is another view.
  useEffect(() => {
    const view = now.current;
    if (view && given.current !== start) {
      done(view);
      given.current = start;
      view.dispatch({
        changes: changesBetween(view.state.doc, start),
        filter: false,
        annotations: Transaction.addToHistory.of(false),
      });
    }
  }, [start, done]);
  useEffect(() => {
    given.current = latest.current;
    const view = new EditorView({
      parent: box.current!,
      state: EditorState.create({
        // What was being written when the page was closed is there again.
        doc: (open && drafts.get(draftKey(path), latest.current)) || latest.current,
        extensions: [
          EditorView.cspNonce.of(pageNonce()),
          lineNumbers(),
          foldGutter(),
          highlightSpecialChars(),
          drawSelection(),
          search({ top: true }),
          highlightSelectionMatches(),
          open
            ? [
                history(),
                onlyOwn,
                marked,
                indentUnit.of(path.endsWith(".py") ? "    " : "  "),
                EditorView.domEventHandlers({ blur: (_e, v) => done(v) }),
                EditorView.updateListener.of(
                  (u) => void (u.docChanged && drafts.put(draftKey(path), given.current, u.state.doc.toString())),
                ),
                keymap.of([
                  { key: "Mod-s", run: (v) => (done(v), true) },
                  // Tab leads on, as everywhere: nobody is trapped in here.
                  ...defaultKeymap,
                  ...historyKeymap,
                ]),
              ]
            : EditorState.readOnly.of(true),
          keymap.of([...searchKeymap, ...foldKeymap]),
          // Nothing scrolls sideways: a long line goes on below itself.
          EditorView.lineWrapping,
          EditorView.contentAttributes.of({ "aria-label": path, tabindex: "0" }),
          path.endsWith(".py") ? python() : path.endsWith(".md") ? [] : cpp(),
          syntaxHighlighting(INKS),
          LOOK,
        ],
      }),
    });
    now.current = view;
    return () => {
      done(view);
      view.destroy();
      now.current = null;
    };
  }, [path, open, done]);
  const places = [...text.matchAll(/>>> your code: (\w+)/g)].map((m) => m[1]!);
  /** Leads to a place for own code, however far down it stands. */
  const lead = (name: string) => {
    const view = now.current;
    if (!view) return;
    const n = ownLines(view.state.doc).find((l) =>
      view.state.doc.line(l.first - 1).text.includes(`>>> your code: ${name}`),
    );
    if (!n) return;
    const at = view.state.doc.line(n.last).to;
    view.dispatch({ selection: { anchor: at }, effects: EditorView.scrollIntoView(at, { y: "center" }) });
    view.focus();
  };
  return (
    <>
      {places.length > 0 && (
        <p className="mb-1 flex flex-wrap items-baseline gap-x-3 text-sm text-soft">
          <span>Your own code stays when the plan changes. Write it at</span>
          {places.map((p) => (
            <button key={p} className="quiet num" onClick={() => lead(p)}>
              {p}
            </button>
          ))}
        </p>
      )}
      <div ref={box} data-testid="code" />
    </>
  );
}
