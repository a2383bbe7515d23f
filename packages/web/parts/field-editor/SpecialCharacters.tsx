import { FontSizeOutlined } from '@ant-design/icons';
import { useQuery } from '@tanstack/react-query';
import { Button, Input, Popover } from 'antd';
import { useState, type KeyboardEvent } from 'react';
import { fieldWords as wording } from './words';

type Character = readonly [char: string, name: string, isInMarc8: number];
const KEPT = 'osier-characters';
const MOST_RECENT = 12;
/** A mark that stands on the letter before it is shown on a ring. */
const BASE = '\u25cc';
const isMark = (char: string) => /\p{M}/u.test(char);
const shown = (char: string) => (isMark(char) ? BASE + char : char);

function recentCharacters(): string[] {
  const kept = localStorage.getItem(KEPT) ?? '';
  return [...new Intl.Segmenter().segment(kept)].flatMap(({ segment }) => [...segment]);
}

/** Picks a character by its Unicode name, or one that was picked lately. */
export function SpecialCharacters({ onChoose }: { onChoose: (char: string) => void }) {
  const [open, setOpen] = useState(false);
  return (
    <Popover
      trigger="click"
      open={open}
      onOpenChange={setOpen}
      destroyOnHidden
      title={wording.specialCharacters}
      content={
        <Picker
          onChoose={(char) => {
            setOpen(false);
            const recent = [char, ...recentCharacters().filter((c) => c !== char)].slice(0, MOST_RECENT);
            localStorage.setItem(KEPT, recent.join(''));
            onChoose(char);
          }}
        />
      }
    >
      <Button size="small" icon={<FontSizeOutlined />}>
        {wording.specialCharacters}
      </Button>
    </Popover>
  );
}

/** Enough to look through; a longer name finds the others. */
const MOST_SHOWN = 60;

function Picker({ onChoose }: { onChoose: (char: string) => void }) {
  const [name, setName] = useState('');
  const { data: all = [] } = useQuery({
    queryKey: ['special characters'],
    queryFn: async () =>
      (await import('./special-characters.json')).default.characters.map(
        ([char, said, isInMarc8]): Character => [String(char), String(said), Number(isInMarc8)],
      ),
    staleTime: Infinity,
  });
  const words = name.toLowerCase().split(/\s+/).filter(Boolean);
  const recent = recentCharacters();
  const found = words.length
    ? all.filter(([char, said]) => char === name || words.every((w) => said.includes(w)))
    : [...all.filter(([c]) => recent.includes(c)), ...all.filter(([c]) => !recent.includes(c))];
  const onKey = (event: KeyboardEvent) => {
    // What the picker hears is not for the field behind it.
    event.stopPropagation();
    if (event.key !== 'Enter' || !(event.target instanceof HTMLInputElement)) return;
    event.preventDefault();
    if (found[0]) onChoose(found[0][0]);
  };
  return (
    <div className="characters" onKeyDown={onKey}>
      <Input
        autoFocus
        aria-label={wording.findACharacter}
        placeholder={wording.findACharacter}
        value={name}
        onChange={(e) => setName(e.target.value)}
      />
      <div className="characters-grid">
        {found.slice(0, MOST_SHOWN).map(([char, said, isInMarc8]) => (
          <Button
            key={char}
            size="small"
            title={`${said}${isInMarc8 ? `, ${wording.inMarc8}` : ''}`}
            aria-label={said}
            onClick={() => onChoose(char)}
          >
            {shown(char)}
          </Button>
        ))}
      </div>
      {all.length && found.length === 0 ? <p className="faded">{wording.noCharacterHasThisName}</p> : null}
    </div>
  );
}
