import { MenuFoldOutlined, MenuUnfoldOutlined } from '@ant-design/icons';
import { api } from '@osier/contract';
import { call } from '../api/call';
import { Button, Modal } from 'antd';
import { Suspense, useEffect } from 'react';
import { NavLink, Outlet, useLocation } from 'react-router';
import { queries } from '../api/queries';
import { useToday } from '../areas/today/use-today';
import { UndoSheet } from '../parts/UndoSheet';
import { AREAS } from './areas';
import './frame.css';
import { followWork } from './jobs-store';
import { usePerson } from './person';
import { ScanLine } from './ScanLine';
import { useShell } from './shell-store';
import { KEYS, useShortcuts } from './shortcuts';
import { StatusLine } from './StatusLine';

/** Everything around the work: scan line above, rail at the left, status line below. */
export function Frame() {
  const person = usePerson();
  const { folded, fold, keysShown, showKeys } = useShell();
  const today = useToday();
  const { pathname } = useLocation();
  useShortcuts();
  useEffect(followWork, []);
  useEffect(() => {
    const area = AREAS.find((a) => pathname.startsWith(a.path));
    document.title = area ? `${area.name} – Osier` : 'Osier';
  }, [pathname]);
  const signOut = async () => {
    await call(api.people.signOut);
    queries.clear();
    window.location.assign('/');
  };
  return (
    <div className={folded ? 'frame folded' : 'frame'}>
      <header className="top">
        <NavLink to="/today" className="mark" aria-label="Osier, to Today">
          <img src="/weave.svg" alt="" width="26" height="26" /> <span>Osier</span>
        </NavLink>
        <ScanLine />
        <div className="who">
          <span>
            {person.name}
            <small>{person.role}</small>
          </span>
          <Button size="small" onClick={() => void signOut()}>
            Sign out
          </Button>
        </div>
      </header>
      <nav className="rail" aria-label="Areas">
        {AREAS.map((a, i) => {
          const waiting = today.data && a.waits ? a.waits(today.data) : 0;
          return (
            <NavLink key={a.path} to={a.path} title={`${a.name} (Alt ${i + 1})`}>
              <span className="area-icon" aria-hidden>
                {a.icon}
              </span>
              <span className="name">{a.name}</span>
              {waiting > 0 ? (
                <span className="waits" aria-label={`${waiting} waiting`}>
                  {waiting.toLocaleString('en-GB')}
                </span>
              ) : null}
            </NavLink>
          );
        })}
        <button className="fold" onClick={fold} aria-label={folded ? 'Unfold the rail' : 'Fold the rail'}>
          {folded ? (
            <MenuUnfoldOutlined />
          ) : (
            <>
              <MenuFoldOutlined /> Fold
            </>
          )}
        </button>
      </nav>
      <main className="area">
        <Suspense
          fallback={
            <p className="faded" style={{ padding: 16 }}>
              Opening…
            </p>
          }
        >
          <Outlet />
        </Suspense>
      </main>
      <StatusLine />
      <UndoSheet />
      <Modal open={keysShown} onCancel={() => showKeys(false)} footer={null} title="Keys" width={420}>
        <table className="plain">
          <tbody>
            {KEYS.map(([key, what]) => (
              <tr key={key}>
                <td>
                  <kbd>{key}</kbd>
                </td>
                <td>{what}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </Modal>
    </div>
  );
}
