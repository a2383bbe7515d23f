import { api, type ScanAnswer } from '@osier/contract';
import { useCallback, useEffect, useRef, useState } from 'react';
import { call } from '../../api/call';
import { problemText, RequestProblem } from '../../api/request';
import { copyOnDevice, deviceVerdict, nextOnDevice, type WalkVerdict } from './device-verdict';
import { scanSource } from './scan-source';
import { chime } from '../../parts/sound';
import {
  waitingCount,
  dropScans,
  firstTogether,
  keepScan,
  keepShelf,
  keptShelf,
  waitingScans,
  type KeptCopy,
  type KeptScan,
} from './walk-store';

/** Scans that go in one request. */
const AT_ONCE = 200;
/** Milliseconds after which what waits is tried again. */
const TRY_AGAIN = 10_000;

/** Why scans wait on the device. */
export type WhyWaiting =
  | { readonly kind: 'offline' }
  | { readonly kind: 'signed out' }
  | { readonly kind: 'refused'; readonly why: string };

/**
 * A walk: every scan is kept on the device first, judged from the copies that are there, and sent when it can be; the server's word
 * replaces the device's. Whatever is left from an earlier walk is sent as well.
 */
export function useWalk(id: number) {
  const source = useRef(scanSource());
  const number = useRef(0);
  const [location, setLocation] = useState('');
  const [verdict, setVerdict] = useState<WalkVerdict | null>(null);
  const [next, setNext] = useState<{ readonly callNumber: string; readonly title: string } | null>(null);
  const [far, setFar] = useState<{ readonly found: number; readonly expected: number } | null>(null);
  const [waiting, setWaiting] = useState(0);
  const [why, setWhy] = useState<WhyWaiting | null>(null);
  const [times, setTimes] = useState<readonly number[]>([]);
  const [onDevice, setOnDevice] = useState(0);
  const [isTakingBack, setTakingBack] = useState(false);
  /** Why the last scan could not be taken back. */
  const [notTakenBack, setNotTakenBack] = useState('');
  const shelf = useRef<{ list: readonly KeptCopy[]; copies: ReadonlyMap<string, KeptCopy> }>({
    list: [],
    copies: new Map(),
  });
  const seen = useRef(new Set<string>());
  const before = useRef<KeptCopy | null>(null);
  /** The sending under way. */
  const sending = useRef<Promise<void> | null>(null);

  /** How many wait is read from the device each time: a sending and a scan go on beside each other. */
  const countAgain = useCallback(async () => setWaiting(await waitingCount(id)), [id]);

  const sendAll = useCallback(async () => {
    try {
      for (;;) {
        const all = await waitingScans(id);
        setWaiting(all.length);
        const scans = firstTogether(all, AT_ONCE);
        const [first] = scans;
        if (!first) break;
        const from = {
          device: source.current.device,
          run: first.run,
          number: first.number,
          location: first.location,
        };
        const answer: ScanAnswer = await call(api.stocktakes.scan, {
          params: { id },
          body: { codes: scans.map((s) => s.code), times: scans.map((s) => s.at), from },
        });
        await dropScans(scans);
        setFar({ found: answer.found, expected: answer.expected });
        setWhy(null);
        const last = scans.at(-1);
        // Only what is said of the last scan is still on the screen.
        if (last && last.run === source.current.run && last.number === number.current - 1) {
          const said = answer.verdicts.at(-1);
          if (said) setVerdict(said);
          if (said && (said.outcome !== 'in place' || said.jumped))
            chime(said.outcome === 'in place' ? 'look' : said.outcome);
          setNext(answer.next);
        }
      }
    } catch (error) {
      const status = error instanceof RequestProblem ? error.problem.status : 0;
      setWhy(
        status === 0 || status >= 500
          ? { kind: 'offline' }
          : status === 401
            ? { kind: 'signed out' }
            : { kind: 'refused', why: problemText(error) },
      );
    }
  }, [id]);
  const send = useCallback(async () => {
    sending.current ??= sendAll().finally(() => (sending.current = null));
    await sending.current;
  }, [sendAll]);

  useEffect(() => {
    void loadShelf(id).then((list) => {
      shelf.current = { list, copies: new Map(list.map((c) => [c.barcode, c])) };
      setOnDevice(list.length);
    });
    void send();
    const again = setInterval(() => void send(), TRY_AGAIN);
    const online = () => void send();
    window.addEventListener('online', online);
    return () => {
      clearInterval(again);
      window.removeEventListener('online', online);
    };
  }, [id, send]);

  const scan = async (codes: readonly string[]) => {
    setNotTakenBack('');
    for (const code of codes) {
      const kept = {
        stocktake: id,
        run: source.current.run,
        number: number.current,
        code,
        at: new Date().toISOString(),
        location,
      };
      number.current += 1;
      await keepScan(kept);
      const said = deviceVerdict(code, location, {
        ...shelf.current,
        seen: seen.current,
        before: before.current,
      });
      const copy = copyOnDevice(code, shelf.current.copies);
      if (copy) {
        seen.current.add(copy.barcode);
        if (said.outcome === 'in place' || said.outcome === 'out-of-order') before.current = copy;
        setNext(nextOnDevice(shelf.current.list, seen.current, copy));
      }
      setVerdict(said);
      chime(said.outcome);
      setTimes((past) => [...past, Date.now()]);
      await countAgain();
    }
    void send();
  };

  /** The last scan still waits on the device. */
  const dropLast = async (last: KeptScan): Promise<string> => {
    await dropScans([last]);
    await countAgain();
    return last.code;
  };
  /** The server has it already. */
  const undoLast = async (): Promise<string | null> => {
    const { device, run } = source.current;
    const answer = await call(api.stocktakes.undoScan, { params: { id }, body: { device, run } });
    setFar({ found: answer.found, expected: answer.expected });
    return answer.code;
  };
  const takeBack = async () => {
    setTakingBack(true);
    setNotTakenBack('');
    try {
      await takeLastBack();
    } catch (error) {
      setNotTakenBack(problemText(error));
    } finally {
      setTakingBack(false);
    }
  };
  const takeLastBack = async () => {
    // What is on its way may be there or not: only afterwards is it known where to take it back.
    await sending.current;
    const own = (await waitingScans(id)).filter((s) => s.run === source.current.run);
    const last = own.at(-1);
    const code = last ? await dropLast(last) : await undoLast();
    if (code === null) return;
    const copy = copyOnDevice(code, shelf.current.copies);
    if (copy) seen.current.delete(copy.barcode);
    before.current = null;
    setTimes((past) => past.slice(0, -1));
    setVerdict({ code, outcome: 'undone', title: '', callNumber: '', message: '', jumped: null });
  };

  /** Another location is another walk: its order begins anew. */
  const walkIn = (code: string) => {
    source.current = { ...scanSource() };
    number.current = 0;
    before.current = null;
    setLocation(code);
  };
  const takingBack = { takeBack, isTakingBack, notTakenBack };
  return { scan, ...takingBack, walkIn, location, verdict, next, far, waiting, why, times, onDevice };
}

/** The copies of a stretch, from the server while it can be reached, else as they were loaded last. */
async function loadShelf(id: number): Promise<readonly KeptCopy[]> {
  try {
    const copies: KeptCopy[] = [];
    for (let after: string | null = ''; after !== null;) {
      const page: Awaited<ReturnType<typeof shelfPage>> = await shelfPage(id, after);
      copies.push(...page.rows);
      after = page.next;
    }
    await keepShelf(id, copies);
    return copies;
  } catch {
    return (await keptShelf(id)) ?? [];
  }
}
const shelfPage = (id: number, after: string) =>
  call(api.stocktakes.shelf, { params: { id }, query: after ? { after } : {} });
