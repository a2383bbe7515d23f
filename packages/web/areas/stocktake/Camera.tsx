import { BrowserMultiFormatReader, type IScannerControls } from '@zxing/browser';
import { useEffect, useRef, useState } from 'react';
import { stocktakeWords as wording } from './words';

/** A code that is still before the camera is read again only after so long, in milliseconds. */
const AGAIN_AFTER = 2500;

/** Reads bar codes with the camera. */
export default function Camera({ onCode }: { onCode: (code: string) => void }) {
  const video = useRef<HTMLVideoElement>(null);
  const latest = useRef(onCode);
  const [isTrouble, setTrouble] = useState(false);
  useEffect(() => {
    latest.current = onCode;
  });
  useEffect(() => {
    let last = { code: '', at: 0 };
    let controls: IScannerControls | null = null;
    let isGone = false;
    const reader = new BrowserMultiFormatReader();
    reader
      .decodeFromConstraints(
        { video: { facingMode: 'environment' } },
        video.current ?? undefined,
        (result) => {
          const code = result?.getText();
          const now = Date.now();
          if (!code || (code === last.code && now - last.at < AGAIN_AFTER)) return;
          last = { code, at: now };
          latest.current(code);
        },
      )
      .then((started) => {
        controls = started;
        if (isGone) started.stop();
      })
      .catch(() => setTrouble(true));
    return () => {
      isGone = true;
      controls?.stop();
    };
  }, []);
  return isTrouble ? (
    <p className="note caution" role="alert">
      {wording.cameraTrouble}
    </p>
  ) : (
    <video ref={video} className="walk-camera" muted playsInline aria-label={wording.cameraPicture} />
  );
}
