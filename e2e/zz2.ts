import { chromium } from "playwright-core";
import fs from "node:fs";
void (async () => {
  const out = process.argv[2]!, files = process.argv.slice(3);
  const b = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox", "--disable-gpu"] });
  const p = await b.newPage({ viewport: { width: 390 * files.length + 10 * files.length, height: 790 } });
  await p.setContent(files.map((f) => `<img style="width:390px;margin-right:10px;float:left" src="data:image/png;base64,${fs.readFileSync(f).toString("base64")}">`).join(""));
  await p.screenshot({ path: out });
  await b.close();
})();
