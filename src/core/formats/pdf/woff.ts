import { unzlibSync } from "fflate";

const WOFF = 0x774f4646;
const align = (n: number) => (n + 3) & ~3;

/**
 * The plain font inside a WOFF 1.0 container (W3C WOFF File Format 1.0, sections 3 to 5). The PDF library unpacks a WOFF
 * again for every table it touches; unpacked once, the printed plan is ready in half the time. Other bytes come back as
 * they are.
 */
export function unpackWoff(data: Uint8Array): Uint8Array {
  const from = new DataView(data.buffer, data.byteOffset, data.byteLength);
  if (data.length < 44 || from.getUint32(0) !== WOFF) return data;
  const count = from.getUint16(12);
  const tables = Array.from({ length: count }, (_, i) => {
    const at = 44 + 20 * i;
    const [offset, packed, length] = [from.getUint32(at + 4), from.getUint32(at + 8), from.getUint32(at + 12)];
    const raw = data.subarray(offset, offset + packed);
    return {
      tag: from.getUint32(at),
      checksum: from.getUint32(at + 16),
      bytes: packed < length ? unzlibSync(raw) : raw,
    };
  });
  const head = 12 + 16 * count;
  const out = new Uint8Array(head + tables.reduce((s, t) => s + align(t.bytes.length), 0));
  const to = new DataView(out.buffer);
  const power = 2 ** Math.floor(Math.log2(count));
  to.setUint32(0, from.getUint32(4));
  to.setUint16(4, count);
  to.setUint16(6, power * 16);
  to.setUint16(8, Math.log2(power));
  to.setUint16(10, (count - power) * 16);
  let at = head;
  tables.forEach((t, i) => {
    const entry = 12 + 16 * i;
    to.setUint32(entry, t.tag);
    to.setUint32(entry + 4, t.checksum);
    to.setUint32(entry + 8, at);
    to.setUint32(entry + 12, t.bytes.length);
    out.set(t.bytes, at);
    at += align(t.bytes.length);
  });
  return out;
}
