import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { askBytes } from './client.js';

/** An artwork's untouched bytes; they never change. */
export function artworkQuery(id: string) {
  return { queryKey: ['artwork', id], staleTime: Infinity, queryFn: () => askBytes(`/api/artworks/${id}`) };
}

/** What a browser must be told that a file is, by its first bytes. */
function typeOf(bytes: Uint8Array): string {
  if (bytes[0] === 0x89 && bytes[1] === 0x50) return 'image/png';
  if (bytes[0] === 0xff && bytes[1] === 0xd8) return 'image/jpeg';
  return bytes[0] === 0x52 && bytes[8] === 0x57 ? 'image/webp' : 'image/svg+xml';
}

/** The artwork as the browser itself draws it: an address for an image, which runs no scripts and fetches nothing. */
export function useArtworkPicture(id: string | null): string | null {
  const { data } = useQuery({ ...artworkQuery(id ?? ''), enabled: id !== null });
  const [url, setUrl] = useState<string | null>(null);
  useEffect(() => {
    if (!data) {
      setUrl(null);
      return undefined;
    }
    const made = URL.createObjectURL(new Blob([data as BlobPart], { type: typeOf(data) }));
    setUrl(made);
    return () => URL.revokeObjectURL(made);
  }, [data]);
  return url;
}
