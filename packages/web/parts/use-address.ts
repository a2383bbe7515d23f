import { useSearchParams } from 'react-router';

/** The query of the address, and a way to change parts of it in place; an empty part goes. */
export function useAddress(): readonly [
  query: URLSearchParams,
  change: (parts: Readonly<Record<string, string | undefined>>) => void,
] {
  const [query, setQuery] = useSearchParams();
  return [
    query,
    (parts) =>
      setQuery(
        (old) => {
          for (const [key, value] of Object.entries(parts))
            if (value) old.set(key, value);
            else old.delete(key);
          return old;
        },
        { replace: true },
      ),
  ];
}
