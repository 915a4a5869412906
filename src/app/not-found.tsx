import Link from 'next/link';

export default function NotFound() {
  return (
    <main className="mx-auto max-w-[640px] px-6 py-20">
      <h1 className="mb-2">There is nothing here</h1>
      <p className="text-soft">
        The video may have been deleted, or the address is not whole.{' '}
        <Link href="/" className="textlink">
          Back to the Board
        </Link>
      </p>
    </main>
  );
}
