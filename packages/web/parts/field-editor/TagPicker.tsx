import { AutoComplete, Button } from 'antd';
import { useState } from 'react';
import { useFormat } from '../format';
import { fieldWords as wording } from './words';

/** Names a new field by its tag, or by words of its name. */
export function TagPicker({ leader, onChoose }: { leader: string; onChoose: (tag: string) => void }) {
  const format = useFormat();
  const [text, setText] = useState('');
  const isTag = /^\d{3}$/.test(text);
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  const tags = format?.fieldTags(format.formatOf(leader)) ?? [];
  const found = words.length
    ? tags.filter(
        ({ tag, name }) => tag.startsWith(text) || words.every((w) => name.toLowerCase().includes(w)),
      )
    : [];
  const choose = (tag: string) => {
    setText('');
    onChoose(tag);
  };
  return (
    <span className="row" data-key="t" aria-label={wording.tagOfANewField}>
      <AutoComplete
        size="small"
        style={{ width: 150 }}
        popupMatchSelectWidth={false}
        aria-label={wording.tagOfANewField}
        placeholder={wording.tagOrName}
        value={text}
        options={found.slice(0, 20).map(({ tag, name }) => ({ value: tag, label: `${tag}  ${name}` }))}
        onChange={setText}
        onSelect={choose}
        onKeyDown={(e) => {
          if (e.key !== 'Enter' || !isTag) return;
          e.preventDefault();
          choose(text);
        }}
      />
      <Button size="small" onClick={() => isTag && choose(text)} disabled={!isTag}>
        {wording.addField}
      </Button>
    </span>
  );
}
