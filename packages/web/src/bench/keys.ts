import type { Repair } from '@tersum/document';
import type { Bench } from './model/bench.js';
import { continueChain, finishDraft } from './model/drafting.js';
import { donorOf, holdsDonor, scaledBy, turnedBy, withDonor } from './model/donors.js';
import { dropVariants, takeVariant, walkVariants } from './model/fills.js';
import { dropOffers, takeOffer, walkOffers } from './model/offers.js';
import { docketOrder, movedBy, repairEdit } from './model/repairs.js';
import { chooseMethod, setWidth } from './card/settings.js';
import { fitted, panned, zoomedAt } from './table/viewport.js';
import { shownCanvas } from './model/state.js';

/** A key goes down on the bench; fields and open windows keep theirs. */
export function keyDown(bench: Bench, event: KeyboardEvent): void {
  if (busyElsewhere(event)) return;
  if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z') {
    void (event.shiftKey ? bench.redo() : bench.undo());
    event.preventDefault();
    return;
  }
  if (event.altKey && nudgeDonor(bench, event)) return event.preventDefault();
  if (event.ctrlKey || event.metaKey || event.altKey) return;
  if (press(bench, event.key, event)) event.preventDefault();
}

/** What lasts as long as a key is held ends with it. */
export function keyUp(bench: Bench, event: KeyboardEvent): void {
  const key = event.key.toLowerCase();
  if (key === 'v') bench.set({ asReceived: false });
  if (key === 'a') bench.set({ showAll: false });
  if (key === 'd') bench.set({ pickingDonor: false });
}

/** Keys that are let go elsewhere are never told. */
export function keysLeft(bench: Bench): void {
  bench.set({ asReceived: false, showAll: false, pickingDonor: false });
}

function busyElsewhere(event: KeyboardEvent): boolean {
  const target = event.target as HTMLElement;
  if (target.closest('[role="dialog"]')) return true;
  if (target.matches('input:not([type="range"]), textarea, select')) return true;
  // Sliders and buttons keep the keys that work them.
  const working = target.matches('input[type="range"], [role="slider"]')
    ? ['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown', 'Home', 'End']
    : target.matches('button:not([role="option"]), a')
      ? ['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown', ' ']
      : [];
  return working.includes(event.key);
}

/** @returns whether the key meant something */
function press(bench: Bench, key: string, event: KeyboardEvent): boolean {
  const s = bench.store.getState();
  const { viewport, table, records, tool } = s;
  switch (key.length === 1 ? key.toLowerCase() : key) {
    case '1':
      return chooseMethod(bench, 'clone');
    case '2':
      return chooseMethod(bench, 'graft');
    case '3':
      return chooseMethod(bench, 'patch');
    case '4':
      return chooseMethod(bench, 'fill');
    case '5':
      return chooseMethod(bench, 'piece');
    case '6':
      return chooseMethod(bench, 'give back');
    case '7':
      return chooseMethod(bench, 'push');
    case '[':
    case ']':
      return changeDonor(bench, 'Turn a donor', (r) => turnedBy(r, key === '[' ? 1 : -1));
    case '{':
    case '}':
      return changeDonor(bench, 'Turn a donor', (r) => turnedBy(r, key === '{' ? 15 : -15));
    case '-':
    case '=':
      return changeDonor(bench, 'Scale a donor', (r) => scaledBy(r, key === '-' ? 0.99 : 1.01));
    case '_':
    case '+':
      return changeDonor(bench, 'Scale a donor', (r) => scaledBy(r, key === '_' ? 0.9 : 1.1));
    case 'x':
      return changeDonor(bench, 'Mirror a donor', (r) =>
        withDonor(r, { mirrorX: !donorOf(r)?.mirrorX }),
      );
    case 'y':
      return changeDonor(bench, 'Mirror a donor', (r) =>
        withDonor(r, { mirrorY: !donorOf(r)?.mirrorY }),
      );
    case ',':
      return setWidth(bench, Math.max(1, Math.round(tool.width / 1.15 - 0.5)));
    case '.':
      return setWidth(bench, Math.round(tool.width * 1.15 + 0.5));
    case ';':
      bench.setTool({ softness: Math.max(0, Math.round(tool.softness * 20 - 1) / 20) });
      return true;
    case "'":
      bench.setTool({ softness: Math.min(1, Math.round(tool.softness * 20 + 1) / 20) });
      return true;
    case 'e':
      if (s.draft?.site.kind !== 'chain') break;
      void continueChain(bench);
      return true;
    case 'Enter':
      if (s.offers?.list && !(event.target as HTMLElement).matches('button, a'))
        return takeOffer(bench);
      if (s.variants?.list && !(event.target as HTMLElement).matches('button, a'))
        return takeVariant(bench);
      if (!s.draft || (event.target as HTMLElement).matches('button, a')) return false;
      void finishDraft(bench);
      return true;
    case 'Escape':
      if (s.addingFinding || s.finding || s.marking)
        bench.set({ addingFinding: false, finding: null, marking: null, draft: null });
      else if (s.offers) dropOffers(bench);
      else if (s.variants) dropVariants(bench);
      else if (s.fillHand !== 'pick') bench.set({ fillHand: 'pick', draft: null });
      else bench.set(s.draft ? { draft: null } : { selected: null, also: [] });
      return true;
    case 'Delete':
    case 'Backspace':
      if (!s.selected) return false;
      void bench.change('Delete a repair', [{ entity: 'repair', id: s.selected, after: null }]);
      return true;
    case 'n':
    case 'p': {
      // A selected finding has its own next and previous.
      if (!records || s.finding) return false;
      const order = docketOrder(records);
      const at = order.findIndex((r) => r.id === s.selected);
      const step = key.toLowerCase() === 'n' ? 1 : -1;
      const next = at < 0 ? (step > 0 ? 0 : order.length - 1) : at + step;
      bench.set({
        also: [],
        selected: order[Math.min(order.length - 1, Math.max(0, next))]?.id ?? null,
      });
      return true;
    }
    case 'v':
      bench.set({ asReceived: true });
      return true;
    case 'a':
      bench.set({ showAll: true });
      return true;
    case 'd':
      bench.set({ pickingDonor: true });
      return true;
    case 'b':
      bench.set({ split: s.split === null ? 0.5 : null });
      return true;
  }
  if (!viewport || !records) return false;
  const middle = [table.width / 2, table.height / 2] as const;
  switch (key.length === 1 ? key.toLowerCase() : key) {
    case 'f':
      bench.set({
        viewport: fitted(
          shownCanvas(bench.store.getState(), records.picture),
          table,
          viewport.turn,
        ),
      });
      return true;
    case 'r':
      bench.set({ viewport: zoomedAt(viewport, table, middle, 1 / viewport.zoom) });
      return true;
    case 't':
      bench.set({ viewport: zoomedAt(viewport, table, middle, 2 / viewport.zoom) });
      return true;
    case 'q':
    case 'e':
      bench.set({
        viewport: { ...viewport, turn: viewport.turn + (key.toLowerCase() === 'q' ? 5 : -5) },
      });
      return true;
    case 'ArrowLeft':
      if (s.offers && walkOffers(bench, -1)) return true;
      if (s.variants && walkVariants(bench, -1)) return true;
      bench.set({ viewport: panned(viewport, 60, 0) });
      return true;
    case 'ArrowRight':
      if (s.offers && walkOffers(bench, 1)) return true;
      if (s.variants && walkVariants(bench, 1)) return true;
      bench.set({ viewport: panned(viewport, -60, 0) });
      return true;
    case 'ArrowUp':
      bench.set({ viewport: panned(viewport, 0, 60) });
      return true;
    case 'ArrowDown':
      bench.set({ viewport: panned(viewport, 0, -60) });
      return true;
  }
  return false;
}

/** Changes the donor of the open repair. @returns whether there is one */
function changeDonor(bench: Bench, label: string, change: (repair: Repair) => Repair): boolean {
  const { records, selected } = bench.store.getState();
  const repair = records?.repairs.find((r) => r.id === selected);
  if (!repair || !donorOf(repair)) return false;
  void bench.change(label, [repairEdit(change(repair))]);
  return true;
}

const ARROWS: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** Alt and an arrow move the donor by a pixel, with Shift by ten; a piece is moved itself. */
function nudgeDonor(bench: Bench, event: KeyboardEvent): boolean {
  const way = ARROWS[event.key];
  if (!way) return false;
  const by = event.shiftKey ? 10 : 1;
  return changeDonor(bench, 'Move a donor', (repair) => {
    const donor = donorOf(repair)!;
    return holdsDonor(repair)
      ? movedBy(repair, way[0] * by, way[1] * by)
      : withDonor(repair, { dx: donor.dx + way[0] * by, dy: donor.dy + way[1] * by });
  });
}
