interface Pages {
  hasNextPage: boolean;
  isFetchingNextPage: boolean;
  fetchNextPage: () => Promise<unknown>;
}

/** The way to the page of a list after those shown; nothing after the last. */
export function LoadMore({ of, children }: { of: Pages; children: string }) {
  if (!of.hasNextPage) return null;
  return (
    <button
      type="button"
      className="link mt-2"
      disabled={of.isFetchingNextPage}
      onClick={() => void of.fetchNextPage()}
    >
      {children}
    </button>
  );
}
