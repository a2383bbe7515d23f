import type { Shelf } from './shelf';

const escaped = (value: unknown) => JSON.stringify(value).replace(/</g, '\\u003c');

/** The page of the simulated hand scanner: choose a shelf, pull the trigger copy by copy, or save the codes as a file. */
export const scannerPage = (shelves: readonly Shelf[]): string => `<!doctype html>
<html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>Hand scanner (simulated)</title>
<style>
  body { font: 16px/1.4 system-ui, sans-serif; background: #f5f1e8; color: #22302a; margin: 1.5rem auto; max-width: 34rem; padding: 0 1rem }
  button, select { font: inherit; padding: .5rem .8rem; border: 1px solid #3c6a4b; border-radius: 3px; background: #fffdf8; color: inherit }
  button.pull { background: #3c6a4b; color: #fff; font-size: 1.3rem; width: 100%; padding: 1rem }
  code { font: 1.1rem ui-monospace, monospace } li { margin: .2rem 0 } p.now { border: 1px solid #d8d0bf; background: #fffdf8; padding: .8rem }
</style>
<h1>Hand scanner</h1>
<p>Simulated. Codes go to Osier as they are scanned; some are misread, as in life. Stored codes can be saved as a file.</p>
<p><label>Shelf <select id="shelf"></select></label> <button id="back">Back to its beginning</button> <button id="skip">Skip 10</button></p>
<p class="now" id="now"></p>
<p><button class="pull" id="pull">Pull the trigger</button></p>
<p><label><input type="checkbox" id="store"> Store only, send nothing</label> <button id="save">Save stored codes as a file</button></p>
<ol id="log"></ol>
<script>
const shelves = ${escaped(shelves)};
const $ = (id) => document.getElementById(id);
let at = 0; const stored = [];
shelves.forEach((s, i) => $('shelf').add(new Option(s.name + ' (' + s.copies.length + ')', i)));
const shelf = () => shelves[$('shelf').value].copies;
const show = () => { const c = shelf()[at]; $('now').textContent = c ? c.callNumber + '  ' + c.title + '  ' + c.barcode : 'The end of the shelf.'; };
$('shelf').onchange = $('back').onclick = () => { at = 0; show(); };
$('skip').onclick = () => { at += 10; show(); };
$('pull').onclick = async () => {
  const c = shelf()[at++]; if (!c) return;
  if ($('store').checked) { stored.push(c.barcode); note(c.barcode + ' stored'); }
  else { const r = await (await fetch('/scan?code=' + c.barcode, { method: 'POST' })).json(); stored.push(r.code); note(r.code + (r.heard ? '' : ' (nobody listens: open Osier and sign in)')); }
  show();
};
const note = (text) => { const li = document.createElement('li'); li.textContent = text; $('log').prepend(li); };
$('save').onclick = () => { const a = document.createElement('a'); a.href = URL.createObjectURL(new Blob([stored.join('\\r\\n') + '\\r\\n'])); a.download = 'scanner.txt'; a.click(); };
show();
</script></html>`;
