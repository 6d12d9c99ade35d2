import { DEVICES, wired } from "./src/core/firmware/devices";
import { MODELS } from "./src/core/bench/models";
import { machineOf } from "./src/core/firmware/devices/run";
const d = DEVICES.find(x=>x.id==="module/lcd1602-i2c")!.of(wired({}));
const p = MODELS.find(x=>x.part==="module/lcd1602-i2c")!.make({}, {});
console.log(JSON.stringify(d.begin).slice(0,1500));
const m = machineOf(d, p); let now=0; for(let i=0;i<14;i++){const ms=m.turn(now); now+=ms; console.log(now, ms, JSON.stringify(p.is!(now)), m.fresh);}
const e=DEVICES.find(x=>x.id==="module/lcd1602-parallel")!.of(wired({}));
console.log(e.begin.length, JSON.stringify(e.begin[27]), JSON.stringify(e.begin[26]), e.read.length, JSON.stringify(e.read[53]));
