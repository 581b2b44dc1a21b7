/**
 * The page of the simulated meter: what it shows, and buttons for its probes. It has no part in the
 * application.
 */
export const METER_PAGE = `<!doctype html>
<html lang="en">
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>Simulated meter</title>
<style>
  body { font: 18px system-ui, sans-serif; margin: 1rem auto; max-width: 40rem; background: #f3eee7; color: #1e2a2c; }
  output { display: block; font: 700 3rem ui-monospace, monospace; padding: 1rem; background: #dfe7dd; border-radius: 8px; }
  button { font: inherit; min-height: 3rem; min-width: 3rem; padding: 0 .8rem; margin: .2rem; border: 2px solid #8b8272; border-radius: 8px; background: #fff; }
  button[aria-pressed=true] { border-color: #0f5b63; font-weight: 700; }
</style>
<h1>Simulated meter</h1>
<output id="shows" aria-label="Display"></output>
<p id="hint">Press and hold a position to touch it; Shift and press to leave the probe there.</p>
<div id="places" role="group" aria-label="Probes"></div>
<p>
  <button data-mode="resistance">ohms</button><button data-mode="voltage">volts</button><button data-mode="current">amperes</button>
  <button id="power">on / off</button>
</p>
<script>
  const send = (path, body) => fetch(path, { method: 'POST', body: JSON.stringify(body) });
  let isOn = true;
  async function refresh() {
    try {
      const s = await (await fetch('/state')).json();
      isOn = s.on;
      document.getElementById('shows').textContent = s.on ? s.shows : '';
      const box = document.getElementById('places');
      if (!box.children.length)
        for (const place of ['off', 'together', ...s.positions]) {
          const b = document.createElement('button');
          b.textContent = place === 'off' ? 'lifted' : place;
          b.dataset.place = JSON.stringify(place);
          b.onpointerdown = () => send('/probe', { at: place });
          b.onpointerup = (e) => e.shiftKey || send('/probe', { at: 'off' });
          b.onkeydown = (e) => e.key === 'Enter' && send('/probe', { at: place });
          box.append(b);
        }
      for (const b of box.children) b.setAttribute('aria-pressed', String(b.dataset.place === JSON.stringify(s.at)));
      for (const b of document.querySelectorAll('[data-mode]')) b.setAttribute('aria-pressed', String(b.dataset.mode === s.mode));
    } catch {}
    setTimeout(refresh, 150);
  }
  for (const b of document.querySelectorAll('[data-mode]')) b.onclick = () => send('/mode', { mode: b.dataset.mode });
  document.getElementById('power').onclick = () => send('/power', { on: !isOn });
  refresh();
</script>
</html>
`;
