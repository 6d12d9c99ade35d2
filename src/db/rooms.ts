import type { Db } from "./database";

export interface RoomRow {
  id: string;
  project_id: string;
  title: string;
  document: string;
  steps: string;
  plan: string;
  created_at: string;
}
export interface BenchRow {
  room_id: string;
  n: number;
  code: string;
  control: string;
}
export interface EventRow {
  room_id: string;
  n: number;
  id: string;
  at: string;
  did: string;
}

/** A room with its benches, or nothing of it. */
export function insertRoom(db: Db, room: RoomRow, benches: readonly Omit<BenchRow, "room_id">[]): void {
  db.transaction(() => {
    db.prepare(
      "INSERT INTO rooms (id, project_id, title, document, steps, plan, created_at) VALUES (@id, @project_id, @title, @document, @steps, @plan, @created_at)",
    ).run(room);
    const put = db.prepare("INSERT INTO room_benches (room_id, n, code, control) VALUES (?, ?, ?, ?)");
    for (const b of benches) put.run(room.id, b.n, b.code, b.control);
  })();
}

export const listRooms = (db: Db, project: string): Pick<RoomRow, "id" | "title" | "created_at">[] =>
  db
    .prepare("SELECT id, title, created_at FROM rooms WHERE project_id = ? ORDER BY created_at DESC, id")
    .all(project) as Pick<RoomRow, "id" | "title" | "created_at">[];

export const getRoom = (db: Db, id: string): RoomRow | undefined =>
  db.prepare("SELECT * FROM rooms WHERE id = ?").get(id) as RoomRow | undefined;

export const benchesOf = (db: Db, room: string): BenchRow[] =>
  db.prepare("SELECT * FROM room_benches WHERE room_id = ? ORDER BY n").all(room) as BenchRow[];

export const benchByCode = (db: Db, code: string): BenchRow | undefined =>
  db.prepare("SELECT * FROM room_benches WHERE code = ?").get(code) as BenchRow | undefined;

export const eventsOf = (db: Db, room: string): EventRow[] =>
  db.prepare("SELECT * FROM room_events WHERE room_id = ? ORDER BY n, at, id").all(room) as EventRow[];

/** Puts events on record, those that are not there yet; which these were. */
export function addEvents(db: Db, events: readonly EventRow[]): EventRow[] {
  const put = db.prepare(
    "INSERT INTO room_events (room_id, n, id, at, did) VALUES (@room_id, @n, @id, @at, @did) ON CONFLICT DO NOTHING",
  );
  return db.transaction(() => events.filter((e) => put.run(e).changes > 0))();
}

export const setControls = (db: Db, room: string, list: readonly { n: number; control: string }[]): void => {
  const put = db.prepare("UPDATE room_benches SET control = ? WHERE room_id = ? AND n = ?");
  db.transaction(() => {
    for (const b of list) put.run(b.control, room, b.n);
  })();
};

/** A room with everything that was done in it. */
export const deleteRoom = (db: Db, id: string): boolean =>
  db.prepare("DELETE FROM rooms WHERE id = ?").run(id).changes > 0;
