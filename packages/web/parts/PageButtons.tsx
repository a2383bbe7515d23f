import { Button } from 'antd';

/** The pages of an area, or the parts of a piece, as a line of buttons; the one that is shown is pressed. */
export function PageButtons<K extends string>({
  label,
  pages,
  chosen,
  onChoose,
}: {
  label: string;
  pages: readonly (readonly [key: K, name: string])[];
  chosen: K;
  onChoose: (key: K) => void;
}) {
  return (
    <div className="seg" role="group" aria-label={label}>
      {pages.map(([key, name]) => (
        <Button
          type="text"
          size="small"
          key={key}
          aria-pressed={chosen === key}
          onClick={() => onChoose(key)}
        >
          {name}
        </Button>
      ))}
    </div>
  );
}
