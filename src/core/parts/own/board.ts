import { findPin, type Part, type Pin } from "../catalogue";
import { draftFrom } from "./draft";
import { readPins, type PinList } from "./pins";
import type { OwnRole } from "./roles";
import type { OwnDraft } from "./schema";

/** `GPIO4`, `IO4`, `GP4`, `4`: the number of a chip's pin. `D4` is the board's own count, which may be another. */
const numberIn = (label: string) => /^(?:GPIO|GP|IO)?(\d{1,3})$/i.exec(label)?.[1];
/** Whether a plain number on a board like this one can only be the chip's: it counts no pins of its own otherwise. */
const countsByChip = (board: Part) =>
  board.pins.every((p) => {
    const own = /^D(\d+)$/.exec(p.label)?.[1];
    return own === undefined || Number(own) === p.gpio;
  });

const isPower = (role: OwnRole) => role === "ground" || role === "supply-in" || role === "supply-out";

/** The pin of a board that a label on another board with the same chip means; undefined where the label tells none. */
function meant(board: Part, label: string): Pin | undefined {
  const bare = label.replace(/\.\d+$/, "");
  const named =
    findPin(board, label) ??
    findPin(board, bare) ??
    board.pins.find((p) => [p.label, ...(p.aliases ?? [])].some((l) => l.toUpperCase() === bare.toUpperCase()));
  if (named) return named;
  const n = numberIn(bare);
  if (n === undefined || (/^\d/.test(bare) && !countsByChip(board))) return undefined;
  return board.pins.find((p) => p.gpio === Number(n));
}

/**
 * Labels as they are printed on a person's board, left row and then right, each with the pin of a known board with the same
 * chip that it means: by label, by another printed name, or by the number of the chip's pin. Supplies and grounds may come
 * several times; a signal comes once.
 */
export function readBoardPins(text: string, board: Part): PinList {
  const read = readPins(text);
  if (!read.ok) return read;
  const taken = new Set<string>();
  const known = new Map(draftFrom(board, true).pins.map((p) => [p.from, p]));
  return {
    ok: true,
    pins: read.pins.map((p) => {
      const pin = meant(board, p.label);
      const there = pin && known.get(pin.label);
      if (!there) {
        // What is no power pin and is not brought out on the known board: nothing is known of it.
        return isPower(p.role) ? p : { ...p, role: "unused" as const, guessed: true, says: "not known here" };
      }
      const { role, says, supply, from } = there;
      // A second ground or supply is one more of its kind; a signal comes once.
      if (taken.has(pin.label))
        return isPower(role)
          ? { ...p, role, supply, guessed: false }
          : { ...p, role: "unused" as const, guessed: true };
      taken.add(pin.label);
      // Told where the print is another, so that a person can hold it against the board.
      const told =
        pin.label === p.label ? says : [`taken for ${pin.label}`, says].filter(Boolean).join("; ").slice(0, 200);
      return { ...p, role, guessed: false, says: told, supply, ...(from !== undefined && { from }) };
    }),
  };
}

/** A draft for a board of one's own with the chip of a known one: all that the chip and its supply are, no pins but the sockets yet. */
export function boardDraft(board: Part): OwnDraft {
  const draft = draftFrom(board, true);
  const sockets = new Set(board.pins.filter((p) => p.role === "cable").map((p) => p.label));
  return {
    ...draft,
    name: "",
    does: `A board with ${board.board!.chip}`,
    pins: draft.pins.filter((p) => sockets.has(p.label)),
    layout: "sides",
    firstRow: "",
    rowPitch: board.board!.rowPitch_mm === undefined ? "" : `${board.board!.rowPitch_mm} mm`,
    secondRow: "down",
  };
}
