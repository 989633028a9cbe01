// Looks for words in a list.
interface Props {
  readonly label: string;
  readonly placeholder: string;
  readonly value: string;
  onChange(value: string): void;
}

export function SearchField({ label, placeholder, value, onChange }: Props) {
  return (
    <input
      type="search"
      aria-label={label}
      placeholder={placeholder}
      value={value}
      onChange={(event) => onChange(event.target.value)}
      className="w-52 rounded-[3px] border border-edge bg-card px-2 py-1"
    />
  );
}
