"use client";

export default function Failed({ reset }: { reset: () => void }) {
  return (
    <main className="p-12">
      <h1 className="text-verdict font-semibold">This page could not be shown.</h1>
      <p className="mt-2">The database may be away. Nothing was changed, and what was recorded is kept.</p>
      <button type="button" className="key mt-4" onClick={reset}>
        Try again
      </button>
    </main>
  );
}
