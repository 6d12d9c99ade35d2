/** What the tool that uploads says, by its kind. */
export const UPLOADS = ["ok", "no port", "busy", "no answer", "wrong chip"] as const;
export type UploadSays = (typeof UPLOADS)[number];

/** What is otherwise than planned, as an edit of the build: what every fault comes to. */
export interface Change {
  /** Wires that are not there, or make no contact. */
  cut?: readonly number[];
  /** Terminals that are joined though the plan does not say so. */
  join?: readonly (readonly [string, string])[];
  /** Resistors of another value, ohms. */
  ohm?: readonly { ref: string; ohm: number }[];
  /** Parts that do nothing any more. */
  dead?: readonly string[];
  /** Contacts that never close, or never open. */
  stuck?: readonly { ref: string; closed: boolean }[];
  /** A part that answers to another address than planned. */
  address?: { ref: string; address: string };
  /** A source that gives only this share of its volts. */
  sag?: { ref: string; share: number };
  /** A capacitor that takes sudden loads is missing: the board starts again when something big does. */
  restarts?: boolean;
  /** Nothing about the wiring: uploading fails so; `silent`: nor does the console come through. */
  upload?: { host: string; says: UploadSays; silent: boolean };
  /** The board runs a program of another plan. */
  otherProgram?: string;
}

/** Two changes at once. */
export const both = (a: Change, b: Change): Change => ({
  cut: [...(a.cut ?? []), ...(b.cut ?? [])],
  join: [...(a.join ?? []), ...(b.join ?? [])],
  ohm: [...(a.ohm ?? []), ...(b.ohm ?? [])],
  dead: [...(a.dead ?? []), ...(b.dead ?? [])],
  stuck: [...(a.stuck ?? []), ...(b.stuck ?? [])],
  ...((a.address ?? b.address) && { address: (a.address ?? b.address)! }),
  ...((a.sag ?? b.sag) && { sag: (a.sag ?? b.sag)! }),
  ...((a.restarts || b.restarts) && { restarts: true }),
  ...((a.upload ?? b.upload) && { upload: (a.upload ?? b.upload)! }),
  ...((a.otherProgram ?? b.otherProgram) && { otherProgram: (a.otherProgram ?? b.otherProgram)! }),
});
