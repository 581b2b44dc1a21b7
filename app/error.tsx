'use client';

export default function ErrorPage({ reset }: { reset: () => void }) {
  return (
    <main className="mx-auto max-w-xl p-8">
      <h1 className="text-2xl font-bold">The server could not answer</h1>
      <p className="mt-2">
        Readings that the bench has accepted are kept in this browser and are sent when the server is back.
      </p>
      <button
        type="button"
        className="mt-4 min-h-12 rounded-lg border-2 border-estuary bg-estuary px-4 font-semibold text-on-estuary"
        onClick={reset}
      >
        Try again
      </button>
    </main>
  );
}
