import Link from "next/link";

export default function NotFound() {
  return (
    <main className="p-10">
      <h1 className="text-2xl">Nothing here</h1>
      <p className="mt-2">
        This address leads nowhere.{" "}
        <Link className="quiet" href="/">
          All projects
        </Link>
      </p>
    </main>
  );
}
