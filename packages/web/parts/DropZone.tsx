import { Button } from 'antd';
import { useRef, useState, type DragEvent } from 'react';
import './drop-zone.css';
import { partWords as wording } from './words';

/** A place to drop files on, or to choose them by keyboard. */
export function DropZone({
  label,
  accept,
  onFiles,
}: {
  label: string;
  accept: string;
  onFiles: (files: File[]) => void;
}) {
  const [over, setOver] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  const drop = (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    onFiles([...event.dataTransfer.files]);
  };
  return (
    <div
      className={over ? 'drop-zone over' : 'drop-zone'}
      onDragOver={(e) => {
        e.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={drop}
    >
      <span>{label}</span>
      <Button size="small" className="fix" data-key="l" onClick={() => input.current!.click()}>
        {wording.chooseAFile}
      </Button>
      <input
        ref={input}
        type="file"
        accept={accept}
        multiple
        hidden
        aria-label={label}
        onChange={(e) => {
          onFiles([...(e.target.files ?? [])]);
          e.target.value = '';
        }}
      />
    </div>
  );
}
