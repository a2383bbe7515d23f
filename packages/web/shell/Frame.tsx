import { MenuFoldOutlined, MenuOutlined, MenuUnfoldOutlined } from '@ant-design/icons';
import { Button, Drawer, Modal } from 'antd';
import { lazy, Suspense, useEffect, useState } from 'react';
import { NavLink, Outlet, useLocation } from 'react-router';
import { useToday } from '../areas/today/use-today';
import { actsOnPage, useActKeys } from './act-keys';
import { AreaBoundary } from './AreaBoundary';
import { AREAS } from './areas';
import './frame.css';
import { followWork } from './jobs-store';
import { useKeptFocus } from './kept-focus';
import { ScanLine } from './ScanLine';
import { useShell } from './shell-store';
import { KEYS, keysOfArea, type KeyLine } from './keys';
import { useShortcuts } from './shortcuts';
import { StatusLine } from './StatusLine';
import { WhoMenu } from './WhoMenu';
import { shellWords as wording } from './words';

const UndoSheet = lazy(() => import('../parts/UndoSheet'));

/** Everything around the work: scan line above, rail at the left, status line below. */
export function Frame() {
  const { folded, fold, keysShown, showKeys, undoing } = useShell();
  const { pathname } = useLocation();
  const [isMenuOpen, setMenuOpen] = useState(false);
  // What can be done is looked up when the keys are asked for.
  const own = [...keysOfArea(pathname), ...(keysShown ? actsOnPage() : [])];
  useShortcuts();
  useActKeys();
  useKeptFocus();
  useEffect(followWork, []);
  useEffect(() => {
    const area = AREAS.find((a) => pathname.startsWith(a.path));
    document.title = area ? wording.osier(area.name) : wording.osier2;
    setMenuOpen(false);
  }, [pathname]);
  return (
    <div className={folded ? 'frame folded' : 'frame'}>
      <header className="top">
        <Button
          className="rail-menu"
          icon={<MenuOutlined />}
          aria-label={wording.areas}
          aria-expanded={isMenuOpen}
          onClick={() => setMenuOpen(true)}
        />
        <NavLink to="/today" className="mark" aria-label={wording.osierToToday}>
          <img src="/weave.svg" alt="" width="26" height="26" /> <span>{wording.osier2}</span>
        </NavLink>
        <ScanLine />
        <WhoMenu />
      </header>
      <nav className="rail" aria-label={wording.areas}>
        <AreaLinks />
        <Button
          type="text"
          size="small"
          className="fold"
          onClick={fold}
          aria-label={folded ? wording.unfoldTheRail : wording.foldTheRail}
        >
          {folded ? (
            <MenuUnfoldOutlined />
          ) : (
            <>
              <MenuFoldOutlined /> {wording.fold}
            </>
          )}
        </Button>
      </nav>
      <main className="area">
        <Suspense
          fallback={
            <p className="faded" style={{ padding: 16 }}>
              {wording.opening}
            </p>
          }
        >
          <AreaBoundary key={pathname.split('/')[1]}>
            <Outlet />
          </AreaBoundary>
        </Suspense>
      </main>
      <StatusLine />
      <Drawer
        open={isMenuOpen}
        onClose={() => setMenuOpen(false)}
        placement="left"
        size={240}
        title={wording.areas}
        rootClassName="area-drawer"
      >
        <nav className="rail" aria-label={wording.areasAsAMenu}>
          <AreaLinks />
        </nav>
      </Drawer>
      {undoing !== null ? (
        <Suspense fallback={null}>
          <UndoSheet />
        </Suspense>
      ) : null}
      <Modal open={keysShown} onCancel={() => showKeys(false)} footer={null} title={wording.keys} width={420}>
        {own.length ? (
          <>
            <h3>{wording.inThisArea}</h3>
            <KeyTable keys={own} />
            <h3>{wording.everywhere}</h3>
          </>
        ) : null}
        <KeyTable keys={KEYS} />
      </Modal>
    </div>
  );
}

/** The areas with the number that waits in each. */
function AreaLinks() {
  const today = useToday();
  return AREAS.map((a, i) => {
    const waiting = today.data && a.waits ? a.waits(today.data) : 0;
    return (
      <NavLink key={a.path} to={a.path} title={wording.alt(a.name, (i + 1) % 10)}>
        <span className="area-icon" aria-hidden>
          {a.icon}
        </span>
        <span className="name">{a.name}</span>
        {waiting > 0 ? (
          <span className="waits" aria-label={wording.waiting(waiting)}>
            {waiting.toLocaleString('en-GB')}
          </span>
        ) : null}
      </NavLink>
    );
  });
}

const KeyTable = ({ keys }: { keys: readonly KeyLine[] }) => (
  <table className="plain">
    <tbody>
      {keys.map(([key, what]) => (
        <tr key={key}>
          <td>
            <kbd>{key}</kbd>
          </td>
          <td>{what}</td>
        </tr>
      ))}
    </tbody>
  </table>
);
