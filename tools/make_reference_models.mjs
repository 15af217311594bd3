// Writes data/reference/models-colorjs.csv and differences-colorjs.csv: colour models and differences as colorjs.io
// computes them. Run where `npm install colorjs.io` has been done: node make_reference_models.mjs FOLDER
import Color from "colorjs.io";
import { readFileSync, writeFileSync } from "node:fs";

const version = JSON.parse(readFileSync(new URL("node_modules/colorjs.io/package.json", `file://${process.cwd()}/`))).version;
const folder = process.argv[2];

// The same numbers at every run: a linear congruential generator (Numerical Recipes, 2nd edition, 7.1).
let state = 1;
const next = () => ((state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 4294967296);
const round = (x) => Math.round(x * 1000) / 1000;

const colours = [];
for (const r of [0, 0.5, 1]) for (const g of [0, 0.5, 1]) for (const b of [0, 0.5, 1]) colours.push([r, g, b]);
for (let i = 0; i < 25; ++i) colours.push([round(next()), round(next()), round(next())]);
const wide = [];
for (let i = 0; i < 15; ++i) wide.push([round(next() * 2 - 0.5), round(next() * 2 - 0.5), round(next() * 2 - 0.5)]);

const percent = { hsl: [1, 100, 100], hsv: [1, 100, 100], hwb: [1, 100, 100] };
const rows = [`# colorjs.io ${version}; columns: its space, sRGB-encoded r, g, b, three coordinates; made by tools/make_reference_models.mjs`];
for (const space of ["xyz-d65", "xyz-d50", "lab", "lab-d65", "lch", "luv", "lchuv", "oklab", "oklch", "ictcp", "hsl", "hsv", "hwb"]) {
    const bounded = ["hsl", "hsv", "hwb", "lchuv", "luv"].includes(space);
    for (const rgb of bounded ? colours : [...colours, ...wide]) {
        const scale = percent[space] ?? [1, 1, 1];
        const out = new Color("srgb", rgb).to(space).coords.map((x, i) => (x ?? 0) / scale[i]);
        if (!out.some(Number.isNaN)) rows.push([space, ...rgb, ...out].join(",")); // it has no PQ of negative cones
    }
}
writeFileSync(`${folder}/models-colorjs.csv`, rows.join("\n") + "\n");

const pairs = [`# colorjs.io ${version}; columns: its method, two sRGB-encoded colours, difference; made by tools/make_reference_models.mjs`];
for (const method of ["76", "2000", "ITP", "OK"])
    for (let i = 0; i + 1 < colours.length; ++i) {
        const a = new Color("srgb", colours[i]), b = new Color("srgb", colours[(i * 7 + 3) % colours.length]);
        pairs.push([method, ...a.coords, ...b.coords, a.deltaE(b, method)].join(","));
    }
writeFileSync(`${folder}/differences-colorjs.csv`, pairs.join("\n") + "\n");
