/** A photo of the store, as a link to the whole of it. */
export function Photo({ id, alt, high = "h-20" }: { id: string; alt: string; high?: string }) {
  return (
    <a href={`/photos/${id}`} target="_blank" rel="noreferrer">
      {/* biome-ignore lint/performance/noImgElement: it is as large as it needs to be, and nobody else may see it */}
      <img src={`/photos/${id}`} alt={alt} loading="lazy" className={`${high} rounded border border-edge`} />
    </a>
  );
}
