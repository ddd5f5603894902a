import { deu, eng, fra, por, spa } from 'stopword';

/** Languages that Bimlo knows the small words of. Texts in others are worked on without. */
export const LANGUAGES = ['en', 'de', 'fr', 'es', 'pt'] as const;
export type Language = (typeof LANGUAGES)[number];

/** What is known of a language. All words in lower case, with straight apostrophes. */
export interface LanguageWords {
  /** Words that say nothing of what a text is about. */
  stop: ReadonlySet<string>;
  /** Words a sentence opens with when it leans on the one before. */
  leaning: ReadonlySet<string>;
  /** Words that stand for somebody or something named before. */
  pronouns: ReadonlySet<string>;
  /** Words that turn against what was said. */
  contrast: ReadonlySet<string>;
  /** Words that speak to whoever listens. */
  address: ReadonlySet<string>;
  /** Words for whoever reads. */
  reader: ReadonlySet<string>;
  /** Words of what holds for all, or for none. */
  general: ReadonlySet<string>;
  /** Words that hold one thing against another. */
  comparing: ReadonlySet<string>;
  /** Words a sentence opens with that tells what somebody did. */
  telling: ReadonlySet<string>;
  /** Words by which somebody speaks of themselves. */
  first: ReadonlySet<string>;
  /** Verbs that tell what was. */
  past: ReadonlySet<string>;
  /** How verbs end that tell what was, where nothing else ends so. */
  pastEnds?: RegExp;
  /** Numbers said in words that are large, or a share. */
  striking: ReadonlySet<string>;
  /** Words that a spoken sentence goes on with, where nothing else shows where it ends. */
  goingOn: ReadonlySet<string>;
  /** What is said about the room, the slides, the break: nothing of the matter. */
  housekeeping: RegExp;
  /** What people say while they look for words. */
  filler: RegExp;
  /** Words that count something. */
  numbers: ReadonlySet<string>;
  /** Ends that are no end of a sentence. */
  abbreviations: ReadonlySet<string>;
  /** Ordinals are written as a number with a full stop: “3. März”. */
  hasOrdinalStops?: boolean;
}

const set = (words: string): ReadonlySet<string> => new Set(words.split(/\s+/));

const MORE_STOP: Record<Language, string> = {
  en: "i you me him us your yours mine ours theirs them themselves myself yourself itself ourselves am isn't aren't wasn't weren't don't doesn't didn't won't wouldn't can't couldn't shouldn't it's that's there's here's i'm you're we're they're i've you've we've they've i'll you'll we'll i'd you'd he's she's let's what's who's did does doing get gets got going go goes just really very quite well okay ok oh um uh yeah yes no not actually basically kind sort thing things something anything everything nothing lot bit one ones much many more most less least first still even too then than now again ever never always often perhaps maybe rather also yet every each any some such same other another own few here there where when why how what which who whose whom while until unless though although because since if else or nor but and so as at by for from in into of off on onto out over under to up down with without within about across after against along among around before behind below beneath beside between beyond during near through toward towards upon via can could may might must shall should will would has have had having be been being was were is are do done say says said tell tells told know knows knew think thinks thought want wants see sees saw look looks looked make makes made come comes came take takes took put like",
  de: 'dass daß ja nein doch mal eben halt also schon noch nur sehr ganz etwas immer wieder gibt geht ging kommt sagt sagte macht ding dinge sache',
  fr: "c'est j'ai d'un d'une qu'il qu'elle n'est s'est l'on ça cela ceci très bien alors donc aussi encore toujours jamais fait faire dit dire peut être chose choses oui non",
  es: 'sí no es son está están muy más menos bien así entonces también siempre nunca hace hacer dice decir puede cosa cosas',
  pt: 'sim não é são está estão muito mais menos bem assim então também sempre nunca faz fazer diz dizer pode coisa coisas uma um',
};

const stopOf = (shipped: readonly string[], language: Language): ReadonlySet<string> =>
  new Set([...shipped, ...MORE_STOP[language].split(' ')].map((word) => word.toLowerCase().replaceAll('’', "'")));

const WORDS_OF: Record<Language, LanguageWords> = {
  en: {
    stop: stopOf(eng, 'en'),
    pronouns: set('it them they he she him his her hers theirs its'),
    leaning: set(
      "this that these those it its it's that's so and but or nor he she they his her their hers him them then there therefore thus hence such also because which who whose where here again too however instead otherwise meanwhile besides moreover still yet both neither either another others one same as well yes no okay ok right sure exactly anyway now",
    ),
    contrast: set(
      'but however instead yet although though despite unlike rather except until unless whereas nobody never only not',
    ),
    address: set(
      "you your yours you're you'll you've yourself let's try imagine look think ask remember notice bring take wait stop start",
    ),
    reader: set("you your yours you're you'll you've you'd yourself"),
    general: set(
      'every everybody everyone everything all nobody nothing none never always only whole most anybody anyone anything whatever whoever whenever wherever people best worst ever hardly',
    ),
    comparing: set(
      'than more less better worse fewer easier harder longer shorter larger smaller as like instead rather not',
    ),
    telling: set(
      'i we he she my our his her on in at after before when yesterday last one two three four five six seven eight nine ten',
    ),
    first: set("i me my mine i'm i've i'd i'll we us our ours we're we've we'd"),
    past: set(
      'was were had did went came said told asked thought took made got gave knew saw found began stood sat lay wrote kept held wanted looked turned called stayed stopped',
    ),
    striking: set(
      'hundred hundreds thousand thousands million millions billion half third quarter percent twice dozens',
    ),
    goingOn: set('and but so because or okay um right well anyway then'),
    housekeeping:
      /\b(?:can (?:you|everybody|everyone) hear|hear me|next slide|this slide|on the slide|the slides|coffee break|after the break|the toilets?|fire exits?|the microphone|the mic|thank you|thanks (?:to|for|very|so)|welcome (?:to|everybody|everyone|back|all)|good (?:evening|morning|afternoon)|any questions|before we (?:start|begin)|subscribe|sponsor(?:ed|s)?|my name is|ladies and gentlemen|phones? (?:off|away)|click (?:here|below)|read on|see you (?:next|soon)|in this (?:article|post|episode|talk))\b/i,
    filler:
      /(?<!\p{L})(?:um|uh|erm|okay|ok|oh yes|you know|i mean|i think it is on|sort of|kind of|hang on|let me see|where was i|as i said)(?!\p{L})/iu,
    numbers: set(
      'two three four five six seven eight nine ten eleven twelve thirteen fourteen fifteen sixteen seventeen eighteen nineteen twenty thirty forty fifty sixty seventy eighty ninety hundred hundreds thousand thousands million millions billion dozen dozens half third quarter twice percent',
    ),
    abbreviations: set(
      'mr mrs ms dr prof st sr jr vs etc e.g i.e eg ie cf no nos p pp ed eds op cit ibid al ch vol vols fig approx ca dept est inc ltd co corp gen col capt lt sgt rev hon jan feb mar apr jun jul aug sep sept oct nov dec mt ave u.s u.k a.m p.m',
    ),
  },
  de: {
    stop: stopOf(deu, 'de'),
    pronouns: set('er es sie ihn ihm ihnen ihr'),
    leaning: set(
      'das dies diese dieser dieses jene und aber oder denn so also er sie es ihr ihre sein seine dann da dort daher deshalb darum dazu dabei damit danach doch auch trotzdem außerdem wie solche hier nun',
    ),
    contrast: set('aber doch jedoch dennoch trotzdem sondern obwohl statt anders nie niemand nur nicht kein keine'),
    address: set('du dein deine dir dich ihr euch eure sie ihnen stell denk schau frag versuch nimm warte'),
    reader: set('du dein deine dir dich ihr euch eure sie ihnen'),
    general: set(
      'jeder jede jedes jeden alle alles niemand nichts keiner keine nie niemals immer nur ganze meisten man wer was kein einzige einzigen beste besten letzte',
    ),
    comparing: set('als mehr weniger besser schlechter lieber wie statt nicht sondern bevor'),
    telling: set('ich wir er sie mein meine unser bei in im am an nach vor als gestern einmal heute morgen'),
    first: set('ich mich mir mein meine meinen meinem meiner wir uns unser unsere unseren'),
    past: set(
      'war waren hatte hatten wurde wurden ging kam sagte fragte stand saß lag gab nahm wollte konnte musste sah fand begann blieb hieß',
    ),
    striking: set('hundert tausend million millionen milliarde hälfte drittel viertel prozent doppelt'),
    goingOn: set('und aber oder weil also dann denn naja okay'),
    housekeeping:
      /(?:hören (?:sie|ihr) mich|nächste folie|auf der folie|kaffeepause|nach der pause|das mikrofon|vielen dank|herzlich willkommen|guten (?:abend|morgen|tag)|noch fragen|mein name ist|meine damen und herren|klicken sie)/i,
    filler: /(?<!\p{L})(?:äh|ähm|hm|naja|okay|sozusagen|irgendwie|quasi|wie gesagt|ich sag mal)(?!\p{L})/iu,
    numbers: set(
      'zwei drei vier fünf sechs sieben acht neun zehn elf zwölf zwanzig dreißig vierzig fünfzig sechzig siebzig achtzig neunzig hundert tausend million millionen hälfte viertel drittel prozent dutzend',
    ),
    abbreviations: set(
      'z.b d.h u.a z.t bzw ca dr prof hr fr st nr bd abb usw etc vgl sog evtl ggf inkl jan feb mär apr jun jul aug sep okt nov dez',
    ),
    hasOrdinalStops: true,
  },
  fr: {
    stop: stopOf(fra, 'fr'),
    pronouns: set('il elle ils elles lui leur leurs'),
    leaning: set(
      "ce cela ceci ça c'est cette ces et mais ou donc alors il elle ils elles leur leurs son sa ses puis là ainsi aussi pourtant cependant ensuite qui que dont ici voilà or car",
    ),
    contrast: set('mais pourtant cependant toutefois sauf malgré jamais personne seulement sans pas'),
    address: set('vous votre vos tu ton ta tes toi imaginez regardez essayez pensez prenez attendez'),
    reader: set('vous votre vos tu ton ta tes toi'),
    general: set(
      'chaque tout tous toute toutes personne rien aucun aucune jamais toujours seul seule seulement chacun quiconque on',
    ),
    comparing: set('que plus moins mieux pire plutôt comme pas autant'),
    telling: set("je j'ai nous il elle mon notre dans en à après avant quand hier"),
    first: set("je j'ai me m'a mon ma mes nous notre nos moi"),
    past: set('était étaient avait avaient fut eut alla vint dit pris fit voulait pouvait'),
    striking: set('cent cents mille million millions milliard moitié tiers quart pourcent'),
    goingOn: set('et mais ou parce alors donc puis bon'),
    housekeeping:
      /(?:vous m'entendez|diapositive|pause café|après la pause|le micro|merci (?:à|de|pour|beaucoup)|bienvenue|bonsoir|bonjour à|des questions|je m'appelle|mesdames et messieurs|cliquez)/i,
    filler: /(?<!\p{L})(?:euh|ben|bon ben|genre|enfin bref|tu vois|vous voyez|comment dire)(?!\p{L})/iu,
    numbers: set(
      'deux trois quatre cinq six sept huit neuf dix onze douze quinze vingt trente quarante cinquante soixante cent mille million millions milliard moitié tiers quart dizaine douzaine',
    ),
    abbreviations: set(
      'm mm mme mlle dr pr st ste etc p.ex c.-à-d env av apr janv févr juil sept oct nov déc n° vol fig',
    ),
  },
  es: {
    stop: stopOf(spa, 'es'),
    pronouns: set('él ella ellos ellas le les'),
    leaning: set(
      'esto eso este esta ese esa estos estas y pero o entonces así él ella ellos ellas su sus luego allí ahí también además sin embargo porque que quien cual aquí ya pues',
    ),
    contrast: set('pero sino aunque embargo salvo nunca nadie solo sólo sin no'),
    address: set('tú tu tus te ti usted ustedes vuestro imagina imagine mira mire prueba pruebe piensa piense espera'),
    reader: set('tú tu tus te ti usted ustedes vuestro'),
    general: set(
      'cada todo todos toda todas nadie nada ningún ninguno ninguna nunca siempre solo sólo quien cualquiera uno',
    ),
    comparing: set('que más menos mejor peor sino como no tanto'),
    telling: set('yo nosotros él ella mi nuestro nuestra en a después antes cuando ayer'),
    first: set('yo me mi mis nosotros nos nuestro nuestra nuestros'),
    past: set('era eran fue fueron había habían estaba estaban tenía dijo hizo quería podía vino'),
    pastEnds: /(?:aron|ieron|\p{L}{2}ó)$/u,
    striking: set('cien cientos mil millón millones mitad tercio cuarto porcentaje'),
    goingOn: set('y pero o porque entonces pues luego bueno'),
    housekeeping:
      /(?:me oyen|diapositiva|pausa para el café|después de la pausa|el micrófono|gracias (?:a|por)|muchas gracias|bienvenid[oa]s|buenas (?:noches|tardes)|buenos días|alguna pregunta|me llamo|señoras y señores|haz clic)/i,
    filler: /(?<!\p{L})(?:eh|este bueno|o sea|pues bueno|digamos|es decir que)(?!\p{L})/iu,
    numbers: set(
      'dos tres cuatro cinco seis siete ocho nueve diez once doce quince veinte treinta cuarenta cincuenta sesenta cien ciento mil millón millones mitad tercio cuarto docena',
    ),
    abbreviations: set(
      'sr sra srta dr dra prof ud uds etc p.ej aprox núm pág vol fig av ene feb mar abr jun jul ago sept oct nov dic',
    ),
  },
  pt: {
    stop: stopOf(por, 'pt'),
    pronouns: set('ele ela eles elas lhe lhes'),
    leaning: set(
      'isto isso este esta esse essa estes estas e mas ou então assim ele ela eles elas seu sua seus suas depois ali aí também além porém porque que quem qual aqui já pois',
    ),
    contrast: set('mas porém contudo todavia embora exceto nunca ninguém só somente sem não'),
    address: set('você vocês tu teu tua te ti imagine olhe veja experimente pense espere'),
    reader: set('você vocês tu teu tua te ti'),
    general: set('cada todo todos toda todas ninguém nada nenhum nenhuma nunca sempre só somente quem qualquer'),
    comparing: set('que mais menos melhor pior senão como não tanto'),
    telling: set('eu nós ele ela meu nosso nossa em no na depois antes quando ontem'),
    first: set('eu me meu minha meus minhas nós nos nosso nossa nossos'),
    past: set('era eram foi foram havia tinha tinham estava estavam disse fez queria podia veio'),
    pastEnds: /(?:aram|eram|iram|\p{L}{2}ou)$/u,
    striking: set('cem centenas mil milhão milhões metade terço quarto porcento'),
    goingOn: set('e mas ou porque então pois depois bom'),
    housekeeping:
      /(?:me ouvem|próximo slide|intervalo para o café|depois do intervalo|o microfone|obrigad[oa]|bem-vind[oa]s|boa (?:noite|tarde)|bom dia|alguma pergunta|meu nome é|senhoras e senhores|clique)/i,
    filler: /(?<!\p{L})(?:hum|né|tipo assim|quer dizer|digamos|pronto)(?!\p{L})/iu,
    numbers: set(
      'dois duas três quatro cinco seis sete oito nove dez onze doze quinze vinte trinta quarenta cinquenta sessenta cem cento mil milhão milhões metade terço quarto dúzia',
    ),
    abbreviations: set(
      'sr sra dr dra prof ex etc p.ex aprox núm pág vol fig av jan fev mar abr jun jul ago set out nov dez',
    ),
  },
};

const NO_WORDS: LanguageWords = {
  stop: new Set(),
  leaning: new Set(),
  pronouns: new Set(),
  contrast: new Set(),
  address: new Set(),
  reader: new Set(),
  general: new Set(),
  comparing: new Set(),
  telling: new Set(),
  first: new Set(),
  past: new Set(),
  striking: new Set(),
  goingOn: new Set(),
  housekeeping: /(?!)/,
  filler: /(?!)/,
  numbers: new Set(),
  abbreviations: new Set(),
};

/** What is known of a language; nothing of one that Bimlo does not know. */
export const wordsOfLanguage = (language: string | null): LanguageWords => WORDS_OF[language as Language] ?? NO_WORDS;

/** Words looked at to tell a language. */
const LOOKED_AT = 2_000;
/** Share of small words from which a text is taken to be in a language. */
const SHARE_OF_SMALL = 0.2;

/** Share of the small words of a language among the first words of a text; 0 for a text without words. */
export function shareOfSmallWords(text: string, language: Language): number {
  const words = firstWords(text);
  const { stop } = WORDS_OF[language];
  return words.length === 0 ? 0 : words.filter((word) => stop.has(word)).length / words.length;
}

const firstWords = (text: string): string[] =>
  (
    text
      .slice(0, LOOKED_AT * 8)
      .toLowerCase()
      .replaceAll('’', "'")
      .match(/[\p{L}\p{M}']+/gu) ?? []
  ).slice(0, LOOKED_AT);

/** The language a text seems to be in by its small words; null where none of the known ones has enough of them. */
export function guessLanguage(text: string): Language | null {
  const words = firstWords(text);
  if (words.length === 0) return null;
  const shares = LANGUAGES.map((language) => ({
    language,
    share: words.filter((word) => WORDS_OF[language].stop.has(word)).length / words.length,
  }));
  const best = shares.reduce((one, other) => (other.share > one.share ? other : one));
  return best.share >= SHARE_OF_SMALL ? best.language : null;
}
