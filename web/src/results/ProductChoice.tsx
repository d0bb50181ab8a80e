import { useQuery } from "@tanstack/react-query";
import { Select } from "../form/Select";
import { PRODUCTS } from "../scenario/found";

interface Props {
  /** By its word in addresses; every one where it is empty. */
  product: string;
  onSet: (product: string) => void;
}

/** What a page of results is of: one product, or every one. */
export const ProductChoice = ({ product, onSet }: Props) => (
  <Select
    label="Product"
    value={product}
    options={[
      ["", "every product"],
      ...(useQuery(PRODUCTS).data ?? []).map((one) => [one.slug, one.name] as const),
    ]}
    onSet={onSet}
  />
);
