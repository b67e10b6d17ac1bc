import Link from "../ui/link";

export default function NotFound() {
  return (
    <main className="p-12">
      <h1 className="text-verdict font-semibold">There is nothing at this address.</h1>
      <p className="mt-2">
        The job may have another number.{" "}
        <Link className="underline" href="/">
          Go to the benches
        </Link>
        , or find it with Ctrl+K there.
      </p>
    </main>
  );
}
