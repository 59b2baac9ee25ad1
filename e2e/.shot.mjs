import { chromium } from "@playwright/test";
import { CHROMIUM } from "/tmp/br.mjs";

const b = await chromium.launch(CHROMIUM);
const p = await b.newPage({ viewport: { width: 1280, height: 800 } });
p.on("console", (m) => {
  if (m.type() === "error" || m.type() === "warning") console.log("console", m.type(), m.text());
});
p.on("pageerror", (e) => console.log("pageerror", e.message));
const base = process.env.BASE ?? "http://127.0.0.1:4571";
const steps = process.argv.slice(2);
for (const s of steps) {
  const [cmd, ...r] = s.split("=");
  const v = r.join("=");
  if (cmd === "go") await p.goto(base + v, { waitUntil: "networkidle" });
  else if (cmd === "wait") await p.waitForTimeout(+v);
  else if (cmd === "click") await p.click(v);
  else if (cmd === "key") await p.keyboard.press(v);
  else if (cmd === "shot") await p.screenshot({ path: v });
  else if (cmd === "eval") console.log(await p.evaluate(v));
  else if (cmd === "size") {
    const [w, h] = v.split("x");
    await p.setViewportSize({ width: +w, height: +h });
  } else if (cmd === "fill") {
    const [sel, t] = v.split("|");
    await p.fill(sel, t);
  }
}
await b.close();
