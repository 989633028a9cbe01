// What is used of the parser. Its published types bring a whole platform with them, which core does without.
declare module "sax" {
  interface Tag {
    name: string;
    local?: string;
    uri?: string;
    attributes: Record<string, string | { value: string }>;
  }
  interface Parser {
    line: number;
    onerror: (error: Error) => void;
    onopentag: (tag: Tag) => void;
    onclosetag: () => void;
    ontext: (text: string) => void;
    oncdata: (text: string) => void;
    ondoctype: (text: string) => void;
    onprocessinginstruction: (instruction: { name: string }) => void;
    write(text: string): Parser;
    close(): void;
    resume(): void;
  }
  const sax: {
    MAX_BUFFER_LENGTH: number;
    parser(isStrict: boolean, options: { xmlns: boolean; strictEntities: boolean; trim: boolean }): Parser;
  };
  export default sax;
}
