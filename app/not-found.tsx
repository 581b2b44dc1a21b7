import { Link } from '../ui/kit/link';

export default function NotFound() {
  return (
    <main className="mx-auto max-w-xl p-8">
      <h1 className="text-2xl font-bold">There is nothing here</h1>
      <p className="mt-2">The address names no unit, job or test run of this depot.</p>
      <p className="mt-4">
        <Link href="/" className="font-semibold text-estuary underline">
          To the yard
        </Link>
      </p>
    </main>
  );
}
