// English, for the word checks.
import { phrases, words, type WordData } from './word-data.ts';

export const ENGLISH: WordData = {
  language: 'en',
  standIns: phrases(`
    abc, add alt text, alt tag, asdf, blah, blah blah, blah blah blah, change me, coming soon,
    fill in later, fixme, foo, foo bar, foobar, n/a, na, no alt, no description, no description available,
    none, null, qwerty, spacer, tba, tbc, tbd, to be added, to be done, to do, todo, undefined, unknown,
    write me, xxx
  `),
  instructions: phrases(`
    lorem ipsum, insert alt, insert description, insert image, insert text, add alt, add a description,
    add description, add text here, enter alt, enter description, enter text, describe this,
    describe the image, describe the photo, describe image, type alt, todo:, tbd:, fixme:, your text,
    your alt, alt text goes, text goes here, description goes here, image goes here, photo goes here,
    dolor sit
  `),
  emptyNouns: words(`
    alt background banner bild caption copy cover default demo description dummy example fig figure file
    final gallery graphic header hero icon image img item logo new photo photograph pic picture placeholder
    alternate alternative product sample slide slideshow temp test testing text thumb thumbnail title unnamed untitled design attribute
  `),
  states: words(`
    absent added add available be being blank come coming decorative decoration deco decor complete completed describe described done empty
    fill filled fixme follow following follows goes incomplete insert inserted lacking later missing need needed
    needs none not open pending please presentational provide provided purely required soon still tba tbc tbd todo
    unavailable wip write written yet ornamental
  `),
  fillers: words(`
    a an and by for here in is it just me merely my no number of only our the this with to will
  `),
  dummies: words('test dummy placeholder'),
  pictureNouns: words(`
    image picture photo photograph pic pict snap snapshot shot graphic icon img
  `),
  idleAdjectives: phrases(`
    amazing, banner, beautiful, close-up, closeup, color, colour, cover, detailed, digital, featured, fine,
    good, great, header, hero, high-resolution, large, lovely, main, nice, product, small, stock, stunning,
    thumbnail, wonderful, black and white, black-and-white
  `),
  determiners: words(`
    a an the this our my another one
  `),
  leads: phrases(`
    of, showing, shows, which shows, depicting, depicts, displaying, featuring, features,
    illustrating, with a view of, illustrates, contains, containing, that shows, in which we see, where we see
  `),
  paintings: words('picture image'),
  oldPictures: words('photo photograph picture snapshot'),
  turning: [],
  fixedOpenings: phrases(`
    here we see, here we can see, here you see, here you can see, in this image, in this photo,
    in this photograph, in this picture, in the image, in the photo, in the photograph, in the picture,
    pictured here is, pictured here are, pictured here, pictured is, pictured, seen here is, seen here are,
    shown here is, shown here are, you can see, we can see, one can see
  `),
  presenters: phrases('here is, heres, this is, here’s'),
  copulas: words('is are'),
  bound: [],
  functionWords: words(`
    a about above across after against along among an and are around as at be before behind being below
    beneath beside between beyond both but by down each for from has have her his in inside into is it its
    like near next of off on one onto or our out outside over past some than that the their them then these
    they this through to towards two under up upon was were where which while who whose with without
  `),
  articles: words('a an the'),
  doubled: words(`
    that had is very so no bye knock bora pago choo really far long many much more again ha tut tick can aye
    hush yum mahi walla baden cha
  `),
  targets: words(`
    about account add address apply archive article ask back basket book booking browse buy call cart
    catalogue checkout choose close collect contact continue course courses delete delivery diary directions
    discover download edit email enlarge enter event events expand explore faq find follow gallery get go
    guide help home homepage hours join journal language learn listen login mail map meet menu more news
    newsletter next open opening order page pause pay phone play previous price prices print profile read
    register remove reserve return save search see send services share shop show sign skip start stop store
    submit subscribe telephone tickets tour view visit watch website workshop workshops write zoom
  `),
  signs: words(`
    arrow badge banner box bubble button chevron circle cog cross disc dots drawing emblem envelope gear
    glyph graphic house icon image letter lines logo loupe magnifier magnifying outline photo picture pin
    silhouette square star symbol thumbnail triangle trolley wordmark
  `),
  weakSigns: words(
    'box house drawing image letter lines photo picture pin star square cross banner bubble button disc dots badge circle house outline triangle',
  ),
  drawn: words('icon symbol glyph pictogram emoji'),
  lettering: words(`
    banner board headline inscription label labelled lettering letters marked notice painted plaque poster reading reads
    says saying sign signs slogan stamped stencilled ticket titled word words written engraved printed
  `),
  hands: words('click clicking tap tapping press hover touch doubleclick'),
  opened: words(`
    here image photo picture pic thumbnail link me enlarge enlarged zoom larger large bigger magnify size more details
    gallery fullscreen expand view
  `),
  invitations: phrases(`
    here, more, read more, read on, learn more, find out more, see more, view more, show more, more info,
    more information, more details, details, link, this link, this page, click, go, go here, see here, look here,
    discover more, get more, know more, continue reading, full story, press to open, tap to open, click to open, press here
  `),
  idleActs: phrases(`
    enlarge, enlarge image, enlarge photo, enlarge picture, zoom, zoom in, zoom image, view image, view photo,
    view larger, view larger image, view full size, view full image, open image, open image in new window,
    open image in a new window, open in new tab, open image in new tab, opens in new window, open photo, show image,
    larger view, larger version, larger image, full size, full size image, see larger image, download image,
    view gallery, open gallery, save image
  `),
  sales: words(`
    bargain booking bestseller bestselling buy cheap cheapest deal deals delivery discount discounts
    gift gifts hire ideas lowest offer offers online order price prices promotion purchase     reviews sale sales shipping shop shopping store value voucher vouchers webshop wholesale fees enrolment
    agency agent download tool test
  `),
  praise: words('affordable best fresh free handmade local organic premium professional quality artisan top'),
  subjects: words(`
    pottery ceramics studio bakery
    accommodation appointment architecture art arts artisan beauty business camping 
    childcare consulting cooking craft crafts culture dating decor decoration design dining ecommerce
    education event events exhibition exhibitions family fashion fitness football gardening
    gastronomy health history holiday holidays homeware hospitality insurance interior interiors
    law lifestyle living luxury marketing medicine news nutrition outdoor
    photography plumbing politics rental rent repair repairs romance romantic 
    security service services skincare software sport sports style technology therapy tickets
    tourism training travel vacation wedding weddings wellness wellbeing weekend workshop workshops yoga
    accounting advice agriculture automotive brunch catering cleaning cocktails community construction courses
    cuisine digital eco engineering entertainment extensions festival finance gaming industry innovation internet
    landscaping legal lessons loans logistics mortgage nightlife recipes renovation roofing seo solutions
    branding sustainability sustainable transport tuition vegan vegetarian
  `),
  describers: words('a an two three some several'),
  appearance: words(`
    red green blue yellow orange purple violet pink brown black white grey gray beige cream turquoise teal
    cyan magenta gold golden silver bronze copper crimson scarlet maroon navy olive lilac mauve ivory tan
    ochre amber rust dark light bright pale deep colourful colorful multicoloured monochrome round circular
    oval square rectangular triangular curved curvy flat long short tall wide narrow thick thin tiny small
    big large huge little giant slim slender rounded pointed pointy straight bent wavy spiral shiny glossy
    matt matte smooth rough soft hard striped spotted dotted speckled patterned transparent shape shapes
    colour colours color colors circle circles oval ovals rectangle rectangles triangle triangles line lines
    stripe stripes dot dots spot spots pattern patterns tone tones shade shades hue hues blob blobs
  `),
  appearanceEndings: words('coloured colored shaped ish toned'),
  inflections: [],
  generics: words(`
    three four five six seven eight nine ten several many few thing things something object objects item items stuff piece pieces one ones form forms background
    foreground side top bottom middle centre center left right very quite rather somewhat slightly mostly
    partly
  `),
  capitalNouns: false,
};
