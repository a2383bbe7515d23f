import { refusalIn } from './request';

/** Asks for a file by what is sent, and saves it under a name. Throws what the server refuses. */
export async function download(path: string, body: unknown, name: string): Promise<void> {
  const response = await fetch(`/api${path}`, {
    method: 'POST',
    credentials: 'same-origin',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });
  if (!response.ok) throw refusalIn(await response.json(), response.status);
  const address = URL.createObjectURL(await response.blob());
  const link = document.createElement('a');
  link.href = address;
  link.download = name;
  link.click();
  URL.revokeObjectURL(address);
}
