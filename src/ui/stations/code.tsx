"use client";
import { cpp } from "@codemirror/lang-cpp";
import { python } from "@codemirror/lang-python";
import { foldGutter, foldKeymap, HighlightStyle, syntaxHighlighting } from "@codemirror/language";
import { highlightSelectionMatches, search, searchKeymap } from "@codemirror/search";
import { EditorState } from "@codemirror/state";
import { drawSelection, EditorView, highlightSpecialChars, keymap, lineNumbers } from "@codemirror/view";
import { useEffect, useRef } from "react";
import { tags } from "@lezer/highlight";

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
});

/** Few inks, all readable on both papers. */
const INKS = HighlightStyle.define([
  { tag: tags.comment, color: "var(--soft)", fontStyle: "italic" },
  { tag: [tags.keyword, tags.processingInstruction], color: "var(--accent)", fontWeight: "700" },
  { tag: [tags.string, tags.special(tags.string)], color: "var(--good)" },
  { tag: [tags.number, tags.bool, tags.null], color: "var(--note)" },
]);

/** A generated file, read-only, selectable, with line numbers. */
export function Code({ path, text }: { path: string; text: string }) {
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const view = new EditorView({
      parent: box.current!,
      state: EditorState.create({
        doc: text,
        extensions: [
          // What a reader needs; nothing is typed here.
          lineNumbers(),
          foldGutter(),
          highlightSpecialChars(),
          drawSelection(),
          search({ top: true }),
          highlightSelectionMatches(),
          keymap.of([...searchKeymap, ...foldKeymap]),
          // Nothing scrolls sideways: a long line goes on below itself.
          EditorView.lineWrapping,
          EditorState.readOnly.of(true),
          EditorView.contentAttributes.of({ "aria-label": path, tabindex: "0" }),
          path.endsWith(".py") ? python() : path.endsWith(".md") ? [] : cpp(),
          syntaxHighlighting(INKS),
          LOOK,
        ],
      }),
    });
    return () => view.destroy();
  }, [path, text]);
  return <div ref={box} data-testid="code" />;
}
