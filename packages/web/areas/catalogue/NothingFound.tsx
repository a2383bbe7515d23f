import { Button } from 'antd';
import { catalogueWords as wording } from './words';

/** That a search finds nothing, with words of our own that may have been meant. */
export const NothingFound = ({
  q,
  meant,
  onSearch,
}: {
  q: string;
  meant: string | null;
  onSearch: (q: string) => void;
}) => (
  <>
    {wording.nothingFoundForTryFewer(q)}
    {meant ? (
      <p className="did-you-mean">
        {wording.didYouMean}{' '}
        <Button size="small" data-key="y" onClick={() => onSearch(meant)}>
          {meant} <kbd>y</kbd>
        </Button>
      </p>
    ) : null}
  </>
);
