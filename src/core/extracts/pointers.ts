import type { Language } from './languages';

/** The words of a language that point to something said elsewhere, all tested on small letters with straight apostrophes. */
export interface Pointers {
  /** Stand for a thing, or for several of anything. */
  things: ReadonlySet<string>;
  /** Stand for a person. */
  people: ReadonlySet<string>;
  /** Point to the noun behind them. */
  demonstratives: ReadonlySet<string>;
  /** Point to a place, or to a way. */
  places: ReadonlySet<string>;
  /** Words before a noun. */
  determiners: ReadonlySet<string>;
  /** Name a person, or anybody. */
  persons: RegExp;
  /** Beginnings whose pronoun stands for nothing: “It is hard to …”. */
  expletive: RegExp;
  /** Demonstratives that point to nothing outside: “this morning”, “those who”. */
  selfContained: RegExp;
  /** One of several that are named elsewhere: “the latter”, “the second is …”. */
  pairs: RegExp;
  /** Begins to count off several, in the middle of a sentence or at its beginning. */
  first: RegExp;
  /** Beginnings of the second, or a later one, of several that are counted. */
  next: RegExp;
  /** Beginnings of an answer. */
  answers: RegExp;
  /** Somebody says something who is not named. */
  unnamedSaying: RegExp;
  /** Speaks to the people in the room. */
  room: RegExp;
  /** Announces what follows. */
  ahead: RegExp;
  /** Ties a sentence to the one before it by its first words: “Nevertheless”, “Another reason is …”. */
  joins: RegExp;
  /** Points to what stands elsewhere on the page: “the picture on the left”, “as we saw above”. */
  page: RegExp;
  /** Words in front that may be left off, so that what is left stands alone. */
  lead: RegExp;
}

const set = (words: string): ReadonlySet<string> => new Set(words.split(/\s+/));

/** As they are written down: `\b` stands for the edge of a word in any script. */
const WRITTEN: Record<Language, Pointers> = {
  en: {
    things: set("it its itself they them their theirs themselves it's that's they're they've they'd"),
    people: set("he him his himself she her hers herself he's she's"),
    demonstratives: set('this that these those such'),
    places: set('there thereby therein herein hence thus here'),
    determiners: set(
      'a an the every each no any some my our your his her its their another other one two three four five six seven eight nine ten many few most all both several this that these those old new more less',
    ),
    persons:
      /^(?:man|men|woman|women|boys?|girls?|child|children|father|mother|brother|sister|son|daughter|wife|husband|friends?|people|person|somebody|someone|anybody|anyone|nobody|everybody|everyone|who|whoever|guests?|customers?|clients?|cooks?|captain|king|queen|doctors?|nurses?|colleagues?|neighbours?|grandmother|grandfather|uncle|aunt|teachers?|workers?|volunteers?|visitors?|farmers?|drivers?|bakers?|painters?|writers?|readers?|players?|singers?|builders?|keepers?|makers?|owners?|actors?|authors?|directors?|professors?|students?|apprentices?|sailors?|ministers?|managers?|members?|strangers?|founders?|observers?|leaders?|officers?|soldiers?|engineers?|beginners?|lawyers?|mayor|skipper|astronomers?|\p{L}{3,}(?:ist|ian|man|woman|men|women)s?)$/u,
    expletive:
      /^(?:it(?:'s| is| was| isn't| wasn't| takes| took| does(?:n't| not) matter| seems| turns out| helps| pays| hurts| costs)\b[^,;:.]{0,40}?\b(?:that|who|to|when|whether|how|if|what|than|where|until|before)\b|it (?:rains|snows)\b|there (?:is|are|was|were|will be|has been|have been|'s)\b|there's\b|this is (?:how|why|what)\b)/i,
    selfContained:
      /\b(?:this (?:year|month|week|morning|evening|afternoon|way or that|or that)|these days|those (?:who|of us|of you|days when|things that)|that of|that is,|that is why|so that|such (?:a|an)|such as|that'll do|is this:|is that|that which|all that)\b/gi,
    pairs:
      /^(?:(?:point|reason|step|rule) (?:number )?(?:two|three|four|five|six|seven|\d)\b|(?:fourth|fifth|sixth|seventh|eighth|ninth|tenth)(?:ly\b|,| and\b)|the (?:second|third|fourth|fifth|next|following) \p{L}+ |the other \p{L}+ (?:is|was|are|were)\b|see \S+ for (?:an? |the |more |details|information)|the first (?:one )?(?:is|was)|the (?:latter|former|others?|rest|second|third|fourth|last|next|same|opposite|answer|cause|consequence|difference|effect|exception|explanation|outcome|problem|reason|remedy|result|solution|trouble)(?: one| ones)?(?: is| was| are| were|,| of (?:them|these|those|the)|$)|(?:on|in|at|for|by|from) the (?:second|third|fourth|other|next|following|same) \w+|second(?:ly)?\b|third(?:ly)?\b|finally\b|lastly\b|next\b|then\b|later\b|afterwards\b|meanwhile\b|on the other hand|for (?:example|instance)\b|in other words|in that case|if so\b|if not\b|even then|only then|by then|since then|until then|after that|before that|one of them|some of them|most of them|neither of|both of|not (?:about|only|because|that|from|for|in|with|to|so)\b|nor\b|as if\b|same\b|what (?:stayed|remained|happened)\b|this (?:time|one)|that (?:one|was|is|said))|\bthe (?:first|last|next|other) (?:ones?\b|(?:two|three|four|five|few)\b(?! \p{L}+s\b))|\bone (?:i|you|we|he|she|they)\b|^it(?: is|'s| was) the (?:thing|one|only one|same|first|last)\b|^\p{L}+ the (?:former|latter)\b|^(?:of|among) all\b[^,]{3,80}\b(?:it|he|she|this|that) (?:is|was)\b|^(?:is|was|were|are|gets|got|has|had|goes|went|came|comes|said|says|stood|sat)\b(?!.*\?$)/iu,
    first: /(?:^|[.!?]\S? )(?:and |but )?first(?:ly|,| of all,) /,
    next: /^(?:and )?(?:the )?(?:second|third|fourth|fifth|sixth|seventh)(?:ly|,| (?:one )?(?:is|was|of)\b| \p{L}+ (?:is|was)\b)/iu,
    answers:
      /^(?:yes|no|yeah|nope|exactly|of course|certainly|indeed|absolutely|sure|right|true|because|not really|well|perhaps|maybe|why not|why(?=[?.!]))\b[,.!?]?/i,
    unnamedSaying:
      /\b(?:he|she|they|it)(?:'d| had| has|'s)? (?:said|says|asked|asks|told|tells|replied|answered|wrote|writes|added|explained|laughed|nodded|thought|meant)\b|\b(?:said|asked|told|answered) (?:him|her|them|he|she|they)\b/i,
    room: /\b(?:my fellow\b|fellow (?:citizens|students|members|americans|graduates)|ladies and gentlemen|dear (?:friends|colleagues|guests|all)|(?:mr|madam|mister) (?:president|speaker|chair\w*|secretary)|members of|your (?:majesty|excellency|honou?r)|some of you (?:are|know|may|have)|those of you|as (?:i|we) (?:said|mentioned|told)|i (?:would|will|want to|'d) like to (?:thank|leave|begin|talk|say)|let me (?:say|tell|begin|start|finish|close|end)|i was told|i am told|i have (?:half an hour|\w+ minutes)|(?:today|tonight) (?:i|we) (?:will|want)|now to the|i hope you|let (?:us|me) (?:begin|start)|let's (?:begin|start)|let(?: us|'s) (?:now )?(?:take a look|look at|turn)|to (?:come to the end|finish|conclude|sum up)|thank you)\b/i,
    ahead:
      /\b(?:as follows|the following|here (?:is|are|'s) (?:what|how|why|the|a|an|one|some|my|our)|what i (?:mean|want)|like this|one thing:|two things|three things)\b[^.!?]*[.:]?$/i,
    joins:
      /^(?:(?:below|above)(?=,| (?:is|are|you))|in (?:the (?:first|second|third|latter|former|other|last) (?:case|instance|example)|(?:either|both) cases?|such a case)\b|an? similar \p{L}+(?! to\b)|(?:although |while |even if )?the two \p{L}+(?! of\b)|nevertheless|nonetheless|moreover|on the one hand|in like (?:fashion|manner)|at the same time|in the meantime|during the intervening|by the same token|in (?:conclusion|summary|particular)|to (?:summari[sz]e|conclude)|all in all|as such(?=,)|that is(?=,)|namely|subsequently|thereafter|thereupon|simultaneously|at (?:this|that) point|after all(?=,)|to give (?:\p{L}+ ){0,3}(?:examples?|illustrations?)|for more (?:information|details?)|more (?:information|details)|furthermore|therefore|consequently|accordingly|as a (?:result|consequence)|similarly|likewise|conversely|(?:in|by) contrast|in addition|additionally|first(?:ly|(?=,| of all,))|for starters(?=,)|to begin with(?=,)|(?:un)?fortunately|luckily|sadly|happily|needless to say|first off|(?:even )?(?:most|more) importantly|in (?:short|sum|turn|both cases)|(?:at )?(?:about|around) (?:the same|this|that) time|instead of (?:this|that)(?=,)|on the contrary|either way|in the same way|even so|that said|(?:others|some|many|most|few|several) (?:will|are|were|have|had|would|can|could|may|might|take|took|do|did)|(?:even )?(?:worse|better)(?: still| yet)?(?=,)|alternatively|however(?=,)|suddenly(?=,)|btw|again(?=,)|besides(?=,)|the (?:good|bad) news|(?:a (?:bit|little|while|few \p{L}+)|some time|soon|shortly|(?:many|some|several|two|three) \p{L}+) (?:later|afterwards|after(?=,))|further(?: \p{L}+){1,3} (?:is|was|are|were)|in other (?!words)\p{L}+s|instead(?! of)|hence|thus|another(?: \p{L}+){1,4} (?:is|was|are|were|comes?|came)|other(?: \p{L}+){1,3} (?:is|was|are|were|have|had|can|will|do|did|offer|use|need)|(?:[\p{L}'-]+ ){1,4}also)\b|\bboth (?:are|were|is|was|have|had|cases|of them)\b|\bsuch an? \p{L}+ (?:is|was|would|will|can|has)\b|^[^,;:]{0,60}\b(?:should|must|will|would|can|could|may|to|do|did|does|give|gave|take|make) (?:\p{L}+ )?this (?:its|an?|the|to|in|on|at|for|with|by|as|if|when|until|once)\b|\b(?:want|expect|need|allow|get|make|keep|let|double) that (?!one\b)\p{L}+ (?:to|be)\b|^[^,;:]{0,40}\bsoon (?:took|became|followed|found|began|had|was|were)\b|\byet another\b|^[^,.;:]{0,40}, that (?:means|is|was|makes|implies|would|will|can|has)\b|^[^,;:]{0,80} therefore\b|^[^,;:]{0,60}\b(?:in particular|nevertheless|nonetheless|moreover|furthermore|additionally|likewise|similarly)\b|^[^.;:]{3,80}, however,|^[^,;:]{0,60}\b(?:is|are|was|were|will|would|can|must|may) then\b|^[^.;:]{3,60}, in fact,|\b(?:too|as well|either|instead|though|anyway)(?:[.!]$|;)|\b(?:a (?:little|bit)|slightly|somewhat) (?:better|worse|more|less|higher|lower|(?!after|ever|over|other)\p{L}{3,}er)\b(?!.*\bthan\b)|\b(?:under|behind|through|after|despite) all this\b|\b(?:question|point|issue|problem|idea|trick)s? here\b|^(?:the|our|my|one|what) [^,.;:]{0,40}\bhere (?:is|was|are|were)\b|\bth(?:is|ese) new \p{L}+|^[^.;:]{3,80}, though[,:;.]|^[^,.;:]{0,40}\binstead\b(?! of)|\bdo(?:es|ne|ing)? just (?:this|that)\b|^the (?:former|latter)\b|^the (?!only|last|no)\p{L}+ ones?\b(?! (?:that|which|who|whom|of|in|at|on|with|i|we|you|he|she|they|nobody)\b)|\b(?:has|have|had|offers?|shows?|uses?|works? in) (?:a )?similar \p{L}+(?! to\b| as\b)/iu,
    page: /\bsee (?:the )?(?:sidebar|box)\b|\bwe (?:have (?:already )?)?(?:discuss|argue|show|explain|s[ae]w|seen|describe|mention|note)e?d? [^.]{0,80}\bin (?:section|chapter|part) \p{L}?[.\d]|\b(?:argued|shown|discussed|explained|described|noted|seen) in (?:section|chapter|part) \p{L}?[.\d]|\b(?:(?:find|get|give|for|offers?|contains?) (?:more|further|additional) (?:information|details)|(?:image|picture|photo(?:graph)?|figure|diagram|chart|graph|table|example|illustration|drawing|map|list|section|chapter|paragraph|reasoning|discussion|text|comment|remark|point|rule|case|step|argument|description)s? (?:above|below|opposite|overleaf|(?:on|to) the (?:left|right)|(?:that|which) follows?)|(?:above|below)-mentioned|the (?:above|following|preceding|previous|aforementioned) \p{L}+|(?:see|shown|seen|described|mentioned|discussed|explained|listed|noted|given|defined|outlined|reproduced|printed|pictured|quoted|cited|presented)(?: in (?:more )?detail)? (?:above|below|earlier|overleaf|opposite)|as (?:you can see|can be seen|shown|(?:we|i) (?:saw|have seen|shall see|will see|noted|showed))|(?:figure|fig\.|table|section|chapter|appendix) \d+|the (?:left|right)(?:-hand)? (?:image|picture|figure|photo)|(?:image|picture|one) on the (?:left|right)|the (?:next|previous) (?:section|chapter|figure|paragraph)|^[^,.;:]{3,60} (?:talks about|discusses|gives an (?:overview|introduction))|as (?:described|explained|shown|mentioned|discussed|noted|outlined|defined) (?:in|above|below|earlier|before)|see (?:also )?(?:chapter|section|figure|page|the (?:list|table|notes?)))\b/iu,
    lead: /^(?:(?:and(?: so| then| yet)?|but(?! for\b)|so(?! (?:far|long|much|many|few|that)\b)),? +|(?:now|well|okay|ok|you know|i mean|look|listen|anyway|of course|in fact|indeed|again|also|still|yet), +)(?=\S)/i,
  },
  de: {
    things: set(
      'es ihm ihn ihnen ihr ihre ihrem ihren ihrer ihres sein seine seinem seinen seiner seines dessen deren denen dieselbe derselbe dasselbe',
    ),
    people: set('er sie'),
    demonstratives: set(
      'dies dieser diese dieses diesem diesen derartige derartiger derartiges derartigen jener jene jenes jenem jenen solche solcher solches',
    ),
    places: set(
      'hier dort da damals dabei dadurch dafür dagegen daher damit danach daneben daran darauf daraus darin darüber darum darunter davon davor dazu dazwischen hierfür hiermit deshalb deswegen',
    ),
    determiners: set(
      'der die das den dem des ein eine einen einem einer eines kein keine keinen keinem keiner jeder jede jedes jeden jedem mein meine meinen meinem meiner unser unsere unseren unserem dein deine euer eure manche viele wenige alle zwei drei vier fünf sechs sieben acht neun zehn elf zwölf',
    ),
    persons:
      /^(?:mann|männer|frau|frauen|kind|kinder|junge|mädchen|vater|mutter|sohn|tochter|bruder|schwester|freund|freundin|mensch|menschen|leute|jemand|niemand|jeder|jede|alle|wer|kundin|kunde|kunden|großmutter|großvater|[a-zäöüß]{3,}(?:er|erin|in|ist|or))$/,
    expletive:
      /^(?:es (?:gibt|gab|(?:ist|war)(?! auch)|wird|dauert|kostet|lohnt|reicht|geht|kommt|hilft|heißt|regnet|schneit|braucht|spielt keine|macht keinen)\b|das ist (?:der|die|das) \w+, (?:die|der|das|den|dem)\b)/i,
    selfContained:
      /\b(?:dies(?:es|en|er) (?:jahr|monat|woche|morgen|abend)|da(?:ss|mit) (?:er|sie|es|man|die|der|das|wir|ich|du|ein|kein)|(?:so|auf) dass|darin,? (?:zu|dass|wie)|darum,? (?:zu|dass|wie)|darauf,? (?:zu|dass|wie)|dafür,? (?:zu|dass|wie)|daran,? (?:zu|dass|wie|wo)|davon,? (?:dass|wie|was)|dazu,? (?:zu|dass)|dabei,? (?:zu|dass)|es gibt|gibt es)\b/giu,
    pairs:
      /^(?:de[rmns]?|die|das) (?:letztere[nrs]?|erstere[nrs]?|andere[nrs]?|zweite[nrs]?|dritte[nrs]?|gleiche[nrs]?|übrigen?)\b|^(?:der (?:grund|unterschied)|die (?:antwort|erklärung|folge|lösung|ursache)|das (?:ergebnis|problem)) (?:ist|war|sind|waren|liegt|lag)\b|^(?:beide[sn]?|zweitens|drittens|schließlich|zuletzt|dann|danach|später|inzwischen|stattdessen|andererseits|einerseits|zum beispiel|dazu kommt|hinzu kommt|sonst|ebenso|genauso|umgekehrt|trotzdem|dennoch|denn|also|nicht (?:aus|nur|weil|um|in|mit|von|für)|kein wunder|im gegenteil|auch|aber|doch|und|oder|das (?:ist|war|sind|hat|geht|zeigt|sage|macht|steht|stimmt|stimmte|hätte|kann))\b/iu,
    first: /(?:\berstens|(?:^|[.!?]\S? )an erster stelle|\bals erstes)\b/,
    next: /^(?:und )?(?:zweitens|drittens|viertens|fünftens|d(?:er|ie|as) (?:zweite|dritte|vierte|fünfte) (?:\p{L}+ )?(?:ist|war))\b/iu,
    answers: /^(?:ja|nein|doch|genau|natürlich|klar|sicher|stimmt|weil|vielleicht|na ja|naja|eben)\b[,.!?]?/i,
    unnamedSaying:
      /\b(?:sagte|sagt|fragte|fragt|antwortete|meinte|schrieb|erzählte|rief) (?:er|sie|ihm|ihr|ihnen|mir)\b|\b(?:er|sie) (?:sagte|sagt|fragte|antwortete|meinte|schrieb|erzählte)\b/iu,
    room: /\b(?:meine damen|sehr geehrte|liebe (?:freunde|gäste|kolleg\w+|mitbürger\w*|genossen)|verehrte|wie (?:ich|wir) (?:gesagt|erwähnt)|ich (?:möchte|will|darf) (?:mich|ihnen|euch|zum schluss|damit)|lassen sie mich|vielen dank|herzlichen dank|manche von ihnen|einige von ihnen|das sage ich)\b/iu,
    ahead: /\b(?:folgende[nrs]?|folgendermaßen|wie folgt|zum beispiel so)\b[^.!?]*[.:?]?$/iu,
    joins:
      /^(?:(?:weiter )?(?:unten|oben) (?:ist|sind|sehen|finden|steht|stehen|wird)\b|im (?:ersten|zweiten|dritten|letzten|anderen|ersteren|letzteren) fall\b|in (?:beiden|solchen|allen anderen) fällen\b|ein(?:e[nrms]?)? ähnliche[nrms]?|(?:obwohl |während )?die beiden \p{L}+(?! de[rs]\b)|gleichzeitig|zugleich|(?:etwa |ungefähr )?zur (?:gleichen|selben) zeit|zu (?:etwa|ungefähr) der(?: gleichen|selben) zeit|an(?:statt|stelle) dessen|nichtsdestotrotz|nichtsdestoweniger|immerhin|im übrigen|insofern|infolgedessen|demzufolge|mithin|des weiteren|weiterhin|vielmehr|indes|währenddessen|daraufhin|seither|hierzu|hierbei|zusammenfassend|abschließend|zum einen|zum anderen|auf der anderen seite|(?:für )?(?:weitere|mehr|nähere) (?:informationen|einzelheiten)|der erste ist|die erste ist|das erste ist|außerdem|ferner|zudem|alternativ(?!e)|(?:noch )?(?:schlimmer|besser)(?: noch)?(?=,|:| ist| war)|(?:viele|manche|einige|die meisten|etliche) (?:sind|waren|haben|hatten|werden|wurden|können|konnten)|allerdings|jedoch|dagegen|hingegen|leider|glücklicherweise|zum glück|folglich|somit|demnach|darüber hinaus|überdies|im gegensatz dazu|erstens|zunächst|ein(?:e|er|es)? weitere[rsn]?|ein(?:e|er|es)? andere[rsn]? (?:\p{L}+ ){1,3}(?:ist|war|sind|waren)|weitere|(?:anders|konkreter|genauer|kurz|einfach|einfacher|vereinfacht) (?:gesagt|ausgedrückt|gefasst|formuliert)|mit anderen worten|dementsprechend|entsprechend|(?:aus|in|an|mit|auf|bei|von|zu|nach) (?:de[mnr](?:selben| gleichen)|anderen \p{L}+)|d(?:er|ie|as|en|em) (?:jetzige|obige|besagte|genannte|erwähnte)[nrs]?)\b|^[^,;:]{0,80}\b(?:jedoch|allerdings|hingegen|demgegenüber|folglich|somit)\b|^[^,;:]{0,60}\b(?:dann|also|danach|bald|anschließend|insbesondere|schließlich|außerdem|zudem|ebenfalls|dennoch|trotzdem|überdies)\b|^[^,;:]{0,80}\b(?:daher|deshalb|deswegen|darum)\b(?!.*\bweil\b)/iu,
    page: /\b(?:(?:weitere|nähere|mehr) (?:informationen|einzelheiten)\b.{0,80}\b(?:finden|gibt|stehen|enthält|lesen)|(?:finden|erhalten|lesen) sie\b.{0,40}\b(?:informationen|einzelheiten)|wie (?:in|im|unter|auf) [^,.;:]{2,60} (?:beschrieben|erklärt|gezeigt|erwähnt|erläutert)|(?:siehe|wie) (?:oben|unten)|siehe (?:den )?(?:kasten|randbemerkung|seitenleiste)|(?:bild|abbildung|foto|grafik|tabelle|beispiel|zeichnung) (?:oben|unten|links|rechts)|(?:das|im|dem) (?:linke|rechte|obere|untere|folgende|nächste)[nrs]? (?:bild|foto|abbildung|abschnitt|kapitel|beispiel)|oben (?:genannt|erwähnt|beschrieben|gezeigt)\w*|wie (?:man sieht|sie sehen|wir (?:oben |bereits |schon )?(?:gesehen haben|sehen|sahen)|bereits|schon gesagt|(?:oben )?(?:erwähnt|beschrieben|gezeigt))|(?:abbildung|abb\.|tabelle|kapitel|abschnitt) \d+|(?:links|rechts) im bild|im folgenden|d(?:er|ie|as|en|em) (?:folgende|vorherige|vorige|nächste)[nrs]? (?:beispiel|bild|abschnitt|kapitel|liste|tabelle|abbildung|\p{L}+(?=[ ?.!,:]*$)))\b/iu,
    lead: /^(?:und(?! so)(?! dann),? +|(?:also|ja|nun|naja|na ja|tja|übrigens|natürlich|kurzum), +)(?=\S)/iu,
  },
  fr: {
    things: set('lui leur leurs eux elles celui celle ceux celles celui-ci celle-ci ceux-ci en y son sa ses'),
    people: set('il elle ils elles'),
    demonstratives: set("ce cet cette ces tel telle tels telles cela ça ceci c'est c'était"),
    places: set('là-bas ici ainsi'),
    determiners: set(
      "le la les l' un une des du de d' au aux chaque aucun aucune mon ma mes notre nos votre vos ton ta tes son sa ses plusieurs quelques tout toute tous toutes deux trois quatre cinq six sept huit neuf dix",
    ),
    persons:
      /^(?:homme|hommes|femme|femmes|enfant|enfants|garçon|fille|père|mère|fils|frère|sœur|ami|amie|amis|gens|personne|quelqu'un|chacun|qui|client|cliente|voisin|voisine|roi|reine|[a-zàâçéèêëîïôûü]{3,}(?:eur|euse|ier|ière|iste|ien|ienne|teur|trice)s?)$/u,
    expletive:
      /^(?:il (?:faut|fallait|faudra|y a|y avait|n'y|ne faut|est|était|suffit|s'agit|pleut|neige|vaut|arrive|existe|reste|semble|paraît)\b|ce (?:qui|que|n'est pas|n'est que|sont|dont|qu'on|qu'il)\b|c'est (?:à|en|dans|quand|parce|par|pour|le|la|l'|un|une)(?!\p{L}).{2,60}\b(?:que|qui|qu'))/iu,
    selfContained:
      /\b(?:ce (?:qui|que|dont|n'est|sont|matin|soir)|cette (?:année|semaine|nuit)|ces (?:jours-ci|derniers (?:jours|mois|temps|ans|siècles))|celui (?:qui|que|de|dont)|celle (?:qui|que|de|dont)|ceux (?:qui|que|de|dont)|celles (?:qui|que|de|dont)|tout ce|il y (?:a|avait)|n'y (?:a|avait)|s'en (?:va|vont|aller))\b/giu,
    pairs:
      /^(?:le (?:dernier|premier|second|deuxième|troisième|même)|la (?:dernière|première|seconde|deuxième|troisième|même)|l'autre|les autres|l'un|l'une)\b|^(?:la (?:cause|conséquence|différence|raison|réponse|solution)|l'(?:effet|explication)|le (?:problème|résultat)) (?:est|était|en est)\b|^(?:ensuite|puis|enfin|deuxièmement|troisièmement|par exemple|d'autre part|au contraire|de même|dès lors|alors|depuis|après cela|non (?:pas|seulement|plus)|ni|pas (?:seulement|parce)|mais|car|or|donc|aussi|pourtant|cependant|voilà|voici)\b/iu,
    first: /\b(?:premièrement|tout d'abord|en premier lieu)\b/,
    next: /^(?:et )?(?:deuxièmement|troisièmement|quatrièmement|l[ea] (?:deuxième|seconde?|troisième|quatrième) (?:\p{L}+ )?(?:est|était))\b/iu,
    answers:
      /^(?:oui|non|si|exactement|bien sûr|certainement|parce qu|peut-être|évidemment|pourquoi(?= ?[?.!]))\b[,.!?]?/iu,
    unnamedSaying:
      /\b(?:il|elle|ils|elles)(?: m'| nous | lui | leur | a| m'a| lui a)? ?(?:dit|disait|disent|demande|demandait|demanda|répond|répondit|répondait|écrit|écrivait|ajoute|ajouta|expliqua)\b|\b(?:dit|répondit|demanda|ajouta|écrit)-(?:il|elle|ils|elles|on)\b/iu,
    room: /\b(?:mesdames|messieurs|chers? (?:amis?|collègues|concitoyens|camarades)|monsieur le (?:président|ministre|maire)|madame la (?:présidente|ministre|maire)|comme je l'ai dit|permettez-moi|je (?:vous remercie|voudrais|souhaite|tiens à) (?:remercier|conclure|finir|terminer|commencer)|merci)\b/iu,
    ahead: /\b(?:comme suit|suivante?s?|voici|ce qui suit)\b[^.!?]*[.:]?$/iu,
    joins:
      /^[^.;:]{3,80}, (?:cependant|de son côté|toutefois|en revanche|par contre|néanmoins|en effet),|^(?:dans (?:le (?:premier|second|deuxième|troisième|dernier) cas|les (?:deux|autres) cas|l'autre cas)\b|(?:bien que |si )?les deux \p{L}+(?! d(?:e|u|es)\b)|d'un (?:autre )?côté|(?:à peu près )?(?:au même moment|à la même (?:époque|période))|(?:au lieu de|à la place de) (?:cela|ça)|à la place|en même temps|à l'inverse|inversement|à ce (?:moment|stade)|de la sorte|dans ce cas|pour (?:cela|ce faire|autant|conclure|finir)|après quoi|ce faisant|ce(?:la|ci) dit|du coup|quoi qu'il en soit|de toute façon|en (?:définitive|résumé|conclusion|somme|particulier)|somme toute|à vrai dire|notamment|plus précisément|entre-temps|par la suite|peu après|auparavant|également|de surcroît|qui plus est|pour (?:plus d'|plus de |de plus amples |davantage d'|davantage de )(?:informations?|détails?)|néanmoins|toutefois|sans toutefois|par ailleurs|par (?:voie de )?conséquence|par conséquent|en conséquence|autrement dit|en d'autres termes|malheureusement|heureusement|(?:un |une )?autres? \p{L}+|en effet|en outre|de plus|de ce fait|c'est (?:pourquoi|la raison pour laquelle|ainsi que|alors)|d'ailleurs|en revanche|par contre|ainsi|bref|alternativement|(?:de|à) nouveau|pire(?: encore)?(?=,)|mieux(?: encore)?(?=,)|(?:beaucoup|certains|certaines|la plupart|plusieurs) (?:sont|étaient|ont|avaient|seront|peuvent|pouvaient)|finalement|quant à|(?:bien que )?tou(?:te)?s (?:les )?deux|dans les deux cas|premièrement|tout d'abord|(?:pour|dans|par|à|sur) (?:les? |la )?(?:même|autre)s? \p{L}+|(?:[\p{L}'’]+ ){1,4}également)\b|\b(?:utilisai(?:en)?t|étai(?:en)?t|faisai(?:en)?t|avai(?:en)?t) alors\b|^[^.;:]{3,80}\bquant à (?:elle|lui|eux|elles)\b|^[^,;:]{0,80}\bdonc\b|^[^,;:]{0,60}\balors\b(?! que)|^[^,;:]{0,60}\bainsi(?! que\b| dire\b)\b/iu,
    page: /^plus d'informations\b|\bvoir (?:l'|aussi l')?encadrée?\b|\b(?:trouve(?:z|rez)|pour|obtenir) (?:plus|davantage|de plus amples) (?:d'|de )?(?:informations?|détails?|renseignements)\b|\bcomme (?:décrit|expliqué|indiqué|montré|mentionné)e?s?\b|\bci-(?:dessous|dessus|contre|après|joint\w*)\b|\b(?:vu|dit|mentionnée?s?|évoquée?s?|citée?s?|décrite?s?|expliquée?s?|montrée?s?) (?:plus haut|plus bas|précédemment)\b|\b(?:l'|les? |une? |des |du )?(?:image|figure|photo|exemple|tableau|illustration|schéma|dessin|section|chapitre|paragraphe)s? (?:de (?:gauche|droite)|qui (?:suit|suivent|précède)|suivante?s?|précédente?s?)\b|\bcel(?:le|ui) de (?:gauche|droite)\b|\bcomme (?:vous (?:le (?:constatez|voyez)|pouvez le)|nous l'avons|nous (?:le verrons|avons)|on (?:l'a vu|le voit|peut le))\b|\b(?:figure|tableau|section|chapitre|annexe) \d+|\bsur l'autre (?:image|figure|photo)\b/iu,
    lead: /^(?:et,? +|(?:alors|bon|ben|donc|enfin|bref|eh bien), +)(?=\S)/iu,
  },
  es: {
    // “la”, “los” and “las” are articles far more often than they stand for anything.
    things: set('ello ellos ellas su sus suyo suya lo le les aquello'),
    people: set('él ella ellos ellas'),
    demonstratives: set(
      'este esta estos estas ese esa esos esas éste ésta éstos éstas ése ésa ésos ésas aquel aquella aquellos aquellas tal tales dicho dicha dichos dichas esto eso',
    ),
    places: set('allí allá ahí aquí así entonces'),
    determiners: set(
      'el la los las un una unos unas cada ningún ninguna algún alguna mi mis nuestro nuestra nuestros nuestras tu tus todo toda todos todas varios muchas muchos dos tres cuatro cinco seis siete ocho nueve diez del al',
    ),
    persons:
      /^(?:hombre|hombres|mujer|mujeres|niño|niña|niños|padre|madre|hijo|hija|hermano|hermana|amigo|amiga|amigos|gente|persona|personas|alguien|nadie|quien|quienes|cada|cliente|vecino|vecina|[a-záéíóúñ]{3,}(?:or|ora|ero|era|ista|ante)s?)$/u,
    expletive:
      /^(?:es (?:que|un|una|el|la|mejor|peor|más|fácil|difícil|posible|importante|hora)\b|hay\b|hubo\b|no hay\b|lo que\b|la que\b|el que\b|los que\b|las que\b)/iu,
    selfContained:
      /\b(?:est[ea] (?:año|mes|semana|mañana|noche)|lo (?:que|de|más|mejor|peor|mismo|único|primero|bueno|malo)|l[ao]s? que|los de|tal (?:vez|como)|así (?:que|como)|todo lo)\b/giu,
    pairs:
      /^(?:el (?:último|primero|segundo|tercero|otro|mismo)|la (?:última|primera|segunda|tercera|otra|misma)|los otros|las otras|los demás|el uno)\b|^(?:la (?:causa|consecuencia|diferencia|explicación|razón|respuesta|solución)|el (?:efecto|motivo|problema|resultado)) (?:es|era|fue)\b|^(?:después|luego|entonces|finalmente|por último|segundo|tercero|por ejemplo|en cambio|por otro lado|además|también|tampoco|sin embargo|por eso|desde entonces|así|ni|no (?:solo|sólo|porque|por)|pero|pues|porque|y)\b/iu,
    first: /(?:\b(?:en primer lugar|primeramente)|(?:^|[.!?]\S? )primero,)/,
    next: /^(?:y )?(?:en (?:segundo|tercer|cuarto) lugar|(?:el|la) (?:segund[oa]|tercer[oa]?|cuart[oa]) (?:\p{L}+ )?(?:es|era|fue))\b/iu,
    answers: /^(?:sí|no,|claro|exacto|exactamente|por supuesto|porque|quizá|quizás|tal vez|bueno)\b[,.!?]?/iu,
    unnamedSaying:
      /\b(?:él|ella|ellos|me|le|les|nos) (?:dijo|dice|decía|preguntó|pregunta|respondió|contestó|escribió|contó)\b|\b(?:dijo|preguntó|respondió|contestó|añadió) (?:él|ella|ellos)\b/iu,
    room: /\b(?:señoras y señores|señor(?:a)? presidente|queridos? (?:amigos|colegas|compañeros)|estimad[oa]s|como (?:he|ya) dicho|como dije|permítanme|quiero (?:agradecer|dar las gracias|terminar|empezar)|muchas gracias|gracias)\b/iu,
    ahead: /\b(?:lo siguiente|como sigue|siguientes?|a continuación)\b[^.!?]*[.:]?$/iu,
    joins:
      /^[^.;:]{3,80}, (?:en cambio|por su parte|sin embargo|por (?:lo )?tanto|no obstante|además),|^(?:(?:más )?(?:abajo|arriba) (?:encontrará|está|están|se|aparece|puede|hay)\b|en (?:el (?:primer|segundo|tercer|último|otro) caso|ambos casos|los (?:dos|otros|demás) casos)\b|(?:aunque |si )?l[oa]s dos \p{L}+(?! del?\b)|[^,;:.]{1,40} también|\p{L}{3,}[aeiáéí]r(?:l[oa]s?|les?)|no obstante|al mismo tiempo|a la vez|(?:para|al|sin|por) (?:\p{L}+ )?\p{L}{2,}[aeiáéí]r(?:l[oa]s?|les?)|(?:más o menos )?(?:por|en) (?:la|esa) misma época|en (?:su lugar|vez de (?:eso|ello|esto))|en lugar de (?:eso|ello|esto)|por un(?:a)? (?:lado|parte)|mientras tanto|en (?:conclusión|resumen|definitiva|particular)|a su vez|acto seguido|de tod[oa]s (?:modos|formas|maneras)|con todo|ahora bien|es decir|por lo demás|dicho esto|alternativamente|(?:peor|mejor) (?:aún|todavía)|de nuevo(?=,)|(?:lo que )?es más(?=,)|(?:muchos|muchas|algunos|algunas|varios|varias|la mayoría) (?:son|eran|están|estaban|han|habían|pueden|podían|tienen)|para más (?:información|detalles)|asimismo|igualmente|en consecuencia|por el contrario|como consecuencia|por (?:lo tanto|consiguiente|ello|otra parte|desgracia|suerte)|(?:des)?afortunadamente|otr[oa]s? \p{L}+|de hecho|en efecto|de ahí|primero(?=,)|en primer lugar|amb[oa]s|(?:por|en|de|con|a) (?:(?:el |la |los |las )?mism[oa]s?|otr[oa]s?) \p{L}+|de este modo|aun así|del mismo modo|es por eso|de igual (?:manera|forma)|(?:se (?:refiere|trata|llama|llamaba|encuentra|utiliza|usa|considera|compone|convirtió)|\p{L}{2,}(?:aron|ieron|aban|ó)|depende|es (?:un|una|el|la|los|las|su)(?![^.;:]{2,80} (?:que|quien|donde|cuando) )|representa|significa|contiene|(?:con|man|ob)?tenía|podía|debía|decía|hacía|venía|incluía|incluye|muestra|consiste|tiene|tuvo|fue|fueron|era|eran|son|aparece|vive|vivía|pertenece|corresponde|sirve|está|estaba|estaban)(?!\p{L})(?!.*\?$))\b/iu,
    page: /\b(?:(?:encontrará|para|obtener|consulte) (?:más|mayor) (?:información|detalles)|(?:imagen|imágenes|foto|figura|tabla|ejemplo|gráfico|mapa|sección|capítulo)s? (?:\p{L}+ )?(?:de (?:arriba|abajo|la (?:izquierda|derecha))|siguientes?|anteriore?s?|adjunt[oa]s?|a continuación)|(?:ver|véase) (?:el )?recuadro|(?:siguiente|anterior) (?:imagen|figura|tabla|ejemplo|sección|capítulo)|como (?:se (?:ve|muestra|observa|verá|mencionó|indicó)|vimos|veremos|hemos visto|puede(?:n)? ver(?:se)?)|(?:figura|tabla|capítulo|sección|apartado) \d+|(?:arriba|antes|anteriormente) (?:mencionad|descrit|citad)\w+|ya mencionad\w+|(?:mencionad|descrit|citad)[oa]s? (?:anteriormente|arriba|antes))\b/iu,
    lead: /^(?:y,? +|(?:bueno|pues|entonces|mira|oye|o sea|en fin), +)(?=\S)/iu,
  },
  pt: {
    things: set(
      'ele ela eles elas seu sua seus suas dele dela deles delas nele nela lo la los las lhe lhes isso isto aquilo',
    ),
    people: set('ele ela eles elas'),
    demonstratives: set(
      'este esta estes estas esse essa esses essas aquele aquela aqueles aquelas tal tais desse dessa deste desta nesse nessa neste nesta',
    ),
    places: set('ali aí lá aqui assim então'),
    determiners: set(
      'o a os as um uma uns umas cada nenhum nenhuma algum alguma meu minha meus minhas nosso nossa nossos nossas teu tua todo toda todos todas vários muitas muitos dois duas três quatro cinco seis sete oito nove dez do da dos das no na nos nas ao à',
    ),
    persons:
      /^(?:homem|homens|mulher|mulheres|menino|menina|criança|crianças|pai|mãe|filho|filha|irmão|irmã|amigo|amiga|gente|pessoa|pessoas|alguém|ninguém|quem|cada|cliente|vizinho|vizinha|[a-záâãàéêíóôõúç]{3,}(?:or|ora|eiro|eira|ista|ante)s?)$/u,
    expletive:
      /^(?:é (?:que|um|uma|o|a|melhor|pior|mais|fácil|difícil|possível|importante|hora|preciso)\b|há\b|havia\b|não há\b|o que\b|a que\b|os que\b|as que\b|quem\b)/iu,
    selfContained:
      /\b(?:est[ea] (?:ano|mês|semana|manhã|noite)|[oa]s? que|[oa]s? de|tal (?:vez|como)|assim (?:que|como)|tudo o|isto é|isso é que)\b/giu,
    pairs:
      /^(?:o (?:último|primeiro|segundo|terceiro|outro|mesmo)|a (?:última|primeira|segunda|terceira|outra|mesma)|os outros|as outras|os demais)\b|^(?:a (?:causa|consequência|diferença|explicação|razão|resposta|solução)|o (?:efeito|motivo|problema|resultado)) (?:é|era|foi)\b|^(?:depois|então|finalmente|por fim|segundo|terceiro|por exemplo|por outro lado|além disso|também|tampouco|porém|contudo|por isso|desde então|assim|nem|não (?:só|porque|por)|mas|pois|porque|e)\b/iu,
    first: /(?:\b(?:em primeiro lugar|primeiramente)|(?:^|[.!?]\S? )primeiro,)/,
    next: /^(?:e )?(?:em (?:segundo|terceiro|quarto) lugar|[oa] (?:segund[oa]|terceir[oa]|quart[oa]) (?:\p{L}+ )?(?:é|era|foi))\b/iu,
    answers: /^(?:sim|não,|claro|exato|exatamente|com certeza|porque|talvez|bom|pois é)\b[,.!?]?/iu,
    unnamedSaying:
      /\b(?:ele|ela|eles|elas|me|lhe|nos) (?:disse|diz|dizia|perguntou|pergunta|respondeu|escreveu|contou)\b|\b(?:disse|perguntou|respondeu|acrescentou)(?:-me|-lhe| ele| ela| eles)\b/iu,
    room: /\b(?:senhoras e senhores|senhora? presidente|caros? (?:amigos|colegas)|queridos? amigos|prezad[oa]s|como (?:eu )?(?:já )?disse|permitam-me|quero (?:agradecer|terminar|começar)|muito obrigad[oa]|obrigad[oa])\b/iu,
    ahead: /\b(?:o seguinte|como segue|seguintes?|a seguir)\b[^.!?]*[.:]?$/iu,
    joins:
      /^[^.;:]{3,80}, (?:porém|contudo|no entanto|entretanto|por sua vez|portanto),|^(?:(?:mais )?(?:abaixo|acima) (?:encontrará|está|estão|há|aparece|pode)\b|n[oa] (?:primeiro|segundo|terceiro|último|outro) caso\b|(?:em ambos os|nos (?:dois|outros|demais)) casos\b|(?:embora |se )?(?:os dois|as duas) \p{L}+(?! d[eoa]s?\b)|[^,;:.]{1,40} também|\p{L}{2,}[áêí]-l[oa]s?|no entanto|ao mesmo tempo|por um lado|(?:mais ou menos )?na mesma (?:época|altura)|em (?:vez|lugar) d(?:isso|isto)|enquanto isso|em (?:conclusão|resumo|particular|seguida)|por sua vez|de qualquer (?:forma|modo)|dito isto|alternativamente|(?:pior|melhor) ainda|de novo(?=,)|(?:muitos|muitas|alguns|algumas|vários|várias|a maioria) (?:são|eram|estão|estavam|têm|tinham|podem|podiam)|ou seja|isto é|para mais (?:informações|detalhes)|entretanto|todavia|portanto|em consequência|por conseguinte|(?:in)?felizmente|outr[oa]s? \p{L}+|de fato|de facto|com efeito|em primeiro lugar|amb[oa]s|(?:por|em|com|de|pel[oa]s?|n[oa]s?|d[oa]s?) (?:mesm[oa]s?|outr[oa]s?) \p{L}+|desta forma|dessa forma|ainda assim|da mesma forma|do mesmo modo|é por isso|(?:(?:se refere|refere-se|trata-se|chama-se|encontra-se|usa-se)|\p{L}{2,}(?:aram|eram|iram|avam|ou)|depende|é (?:um|uma|o|a|os|as|seu|sua)(?![^.;:]{2,80} (?:que|quem|onde|quando) )|representa|significa|contém|inclui|mostra|consiste|tem|tinha|teve|foi|foram|era|eram|são|aparece|vive|vivia|pertence|corresponde|serve|está|estava|estavam)(?!\p{L})(?!.*\?$))\b/iu,
    page: /\bem cima\b(?! d[aeo])|\b(?:(?:encontrará|para|obter|consulte) (?:mais|maiores) (?:informações|detalhes)|(?:imagem|imagens|foto|figura|tabela|exemplo|gráfico|mapa|seção|secção|capítulo)s? (?:acima|abaixo|(?:da|à) (?:esquerda|direita)|seguintes?|anteriore?s?)|(?:seguinte|anterior) (?:imagem|figura|tabela|exemplo|seção|capítulo)|como (?:se (?:vê|mostra|observa|verá)|vimos|veremos|mencionado|dito acima)|(?:figura|tabela|capítulo|seção|secção) \d+|(?:acima|anteriormente|já) (?:mencionad|descrit|citad)\w+|(?:mencionad|descrit|citad)[oa]s? (?:anteriormente|acima|antes))\b/iu,
    lead: /^(?:e,? +|(?:bom|bem|então|olha|pois|ou seja|enfim), +)(?=\S)/iu,
  },
};

/** Where a word begins, where it ends, and either, where what stands beside does not say which. */
const BEGINS = String.raw`(?<![\p{L}\p{N}])`;
const ENDS = String.raw`(?![\p{L}\p{N}])`;
const EDGE = String.raw`(?:(?<![\p{L}\p{N}])(?=[\p{L}\p{N}])|(?<=[\p{L}\p{N}])(?![\p{L}\p{N}]))`;

const withEdges = (source: string): string =>
  source
    .replace(/(^|[|:(^ ])\\b/g, (_, before: string) => before + BEGINS)
    .replace(/(?<=[\p{L})])\\b/gu, ENDS)
    .replaceAll('\\b', EDGE);

/**
 * As a pattern is tested: on small letters, so that none has to be folded, which takes many times as long. English has no letters
 * that `\b` takes for marks, but for a few words from elsewhere.
 */
const tested = ({ source, flags }: RegExp, language: string): RegExp =>
  new RegExp(language === 'en' ? source : withEdges(source), `${flags.replace(/[iu]/g, '')}u`);

/** For each language that Bimlo knows. */
export const POINTERS = Object.fromEntries(
  Object.entries(WRITTEN).map(([language, known]) => [
    language,
    Object.fromEntries(
      Object.entries(known).map(([name, value]) => [
        name,
        value instanceof RegExp && name !== 'persons' ? tested(value, language) : (value as unknown),
      ]),
    ),
  ]),
) as unknown as Record<Language, Pointers>;
