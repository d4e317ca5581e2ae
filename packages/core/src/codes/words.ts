/** The 2 048 words of style codes, in order: trade and garden words, three to eight letters. Their places never change. */
export const WORDS: readonly string[] = `
abbey abode accord acorn acre actor adage adobe agate aglow aisle ajar album alcove alder alley alloy almond aloe
alpaca altar alum amber amble amity ample anchor angle anise ankle anthem antler anvil apex apple apricot apron arable
arbor arch archer arena argent armour arrow artist ascent ash ashlar aspen aster atlas atoll atom attic aubade auburn
auger aura author autumn avens avenue aviary awl awning axis axle azure badge bag bagel bakery ballad ballet balloon
balm balsam bamboo banjo banner bannock bantam barber barge barley barn barrel barter basalt base basil basin basket
bastion bath baton batten bay beacon beagle beaker beam bean beard beaver bedrock bee beech beet belfry beluga bench
bend beryl bevel bevy bib bice bilberry bill billow bin bindweed birch bird biscuit bison bistre black blade blanch
blanket blazer bleach blend blind bloom blossom blot blouse blue bluebell bluff board bobbin bobcat bodkin bolster
bolt bone bonfire bongo bonnet book booth borage border borough boss bottle bough boulder bound bouquet bower bowl
bowler box bracelet bracken bract braid brake bramble bran branch brand brass bravo brayer bread breeze brew briar
brick bridge bridle bright brim brine brisk bristle broad brocade brogue bronze brooch broom broth brown brush bubble
buck bucket buckle bud buff bugle bulb bulrush bump bundle bung bungalow bunting buoy bur burdock bureau burin burlap
burnet burnish bush butler butte button buzzard byre cabbage cabin cable cactus caddy cadence cairn cake calf calico
calla camber camel cameo camera can canal canary candle canoe canopy canteen canvas canyon caper captain caravan
caraway carbon cardinal cardoon cargo caribou carmine carnival carol carp carpet carriage carrot carve cashew cask
caster castle catkin cavalry cavern caviar cedar celery cell cellar cello cement centaury ceramic chaff chain chair
chalice chalk chamber channel chant chapel char charcoal chariot charm chase chateau check cheese cheetah cherry
chervil chest chestnut chicory chime chimney chip chisel chive chorus chrome cicada cider cinder cinema cinnabar
cinnamon circle cistus citron clamp clapper clarinet clasp clay clean clear cleft cliff climb clip cloak cloche clock
clod cloister close cloth cloud clover club coach coal coast cob cobalt cobble cobweb cockle cocoa coffee coin collar
college colony colt column comb comet comfrey common compass compost concert condor conifer convoy cookie copper copse
coral corbel cordial corm corner cornet cornice cosmos cot cottage cotton courier course court cove cowslip coyote
crab cradle crag crane crank crater crayfish crayon cream creek creel creeper crescent cress crew crib cricket crimp
crisp crochet crocus croft crook crop crosier cross crown crumb crumpet crust crystal cube cuckoo cucumber cuddle cuff
culvert cup cupboard cupola curator curd curl curlew currant current curry curtain curve cushion cutlass cutter
cyclamen cymbal cypress dab dabble daffodil dahlia dairy daisy dam damask damson dance dapper dapple darling dart date
deacon decade decoy deep deer dell delta den denim depot desk dew dial diamond diary dibber dimple dinghy dingle dip
dish ditch divan dock dogwood dolly dolmen dolphin dome domino donkey donut door dormouse dot dough dove dovetail
dowel down dragon drape drapery draw drawer dream dredge drift drill drizzle drone drop drum dry dulcimer dumpling
dune dunnock dust duvet dwell dynamo eagle ear early earth easel eaves ebb ebony echo eclair eddy edge eel egg eider
elbow elder elegy elixir elk elm ember emblem emerald emery emu enamel end engine envoy epoch equal ermine essay
estuary etch ether evening ewe exhale eyelet eyrie fable fabric facet fair fairy falcon fall fallow fanfare farm
farrier farthing fathom fauna favour fawn feast feldspar felt fen fence fennel fern ferret ferry fescue festoon fibre
fiddle fiddler field fiesta fife fig figment figure filbert filigree fillet film filter finch fine fir firefly firth
fish fjord flag flagon flail flame flamingo flank flannel flap flare flash flask flax fleece fleet fleur flint float
flock flood floor flora florist flotilla flounce flow flower fluff fluke flurry flute fly foam foil fold foliage folio
font foot forager forest forester forge fork fossil fount fountain fox foxglove foxtail fragrant frame freckle free
freesia freight fresco fresh fret friar frieze frigate fringe fritter frog frolic frond frost fruit fuchsia fuel
fulcrum fulmar funfair fungus funnel fur furrow furze fuse gable gadget galaxy galleon gallery gallop game gander
gannet garden gardener gargoyle garland garlic garnet garter gauge gauze gazebo gazelle gecko gem gentian geranium
gesso geyser gherkin gibbon gill gimlet ginger giraffe glacier gland glass glaze gleam gleaner glen glide glimmer
globe gloss glove glow glue gnat gnome goat goblet godwit gold golden gondola goose gorge gosling gossamer gouge gourd
grace graft grain granary granite granola graph grass grate gravel graver gravy great grebe green greet grey grid
griffin grille grinder grip groove grotto ground grouse grove growth guard guava guide guild guinea guitar gully gum
gust gutter gymnast gypsum habit haddock haggis hail halibut halo halter halyard hamlet hammer hammock hamper hand
handle harbour hare harebell harness harvest hasp hassock hat hatch hatchery haven havoc hawk hawthorn hay hayrick
hazel head hearten hearth heath heather hedge hedgehog heirloom helix helm helmet hemlock hemming hemp hen henna
herald herb herd hermit heron herring hessian hexagon hibiscus hide hillock hilt hinge hive hob hobby hogweed hollow
holly holm home homespun honesty honey hoof hoop hoopoe hopper horizon horn hornbeam hornet horse hosta hostel hound
house hub hull hum humble hummock humus hurdle husky hyacinth hydrant hyssop ibis ice iceberg icicle iguana impala
incense inch indent indigo infant ingot ink inkwell inlay inlet inn insect iota iris iron island isle isobar ivory ivy
jackdaw jacket jade jaguar jam jamboree janitor jargon jasmine javelin jelly jerkin jester jet jetty jewel jigsaw
jockey jodhpur join joiner joist jonquil jostle jotter journey jowl joy jubilee judge jug juggler juice jumble jumper
junco jungle juniper jury jute kale kaolin kayak keen kelp kelpie kerchief kernel kerning kestrel kettle key keystone
kidney kiln kind king kingcup kiosk kipper kit kite kiwi knapsack knapweed knee knife knit knob knoll knot knuckle
koala krill kumquat label laburnum lacewing lacquer ladder ladle lady lagging lagoon lake lamb lambkin lance lancer
lantern lapel lapis lapwing larch large lark larkspur lasso last lathe lattice launch laurel lava lavender lawn layer
leaf leap leather leaven ledger lee leek leg legend lemon lemur lens lentil leopard letter level lever leveret library
lichen lid light lilac lily lime limerick limpet linden linen linnet lino linseed lintel lion liquid list litmus loaf
lobe lobelia lobster locket locust lodge loft log logbook long longboat loofah loom loose lord lotion lotus lounge
lovage loyal lozenge lucerne luck luggage lull lullaby lumber lunar luncheon lungwort lupin lurch lustre lute lynx
lyre lyric macaw mace mackerel madder magenta magma magnet magnolia magpie mahogany maize mallard malt mammoth
mandolin mango mangrove manor mantis mantle map maple marble margin marigold marjoram market marl marmot marquee
marram marsh marten martin mask mason masonry match mattock mauve maxim may mayor maypole maypop maze meadow meander
medal medlar medley mellow melody melon mercury merlin merry mesh metal meteor mica midge midnight mild milk millet
millpond mimosa minaret minnow minstrel mint minute mire mirror mist mitre mitten mix moat moccasin mode mohair
molasses moment monarch monk moon moor mop moped mordant morel morning morse mortar mosaic mosquito moss moth motif
motto mould mount mouse mouth mow mud muffin mug mulberry mulch mule mullein mullion muntin mural muscat museum musk
muslin mussel mustang mustard muzzle myrtle mystic napkin narrow native nave navy near neck nectar needle net nettle
newt nib niche nickel night nimble noble nook noon north nose notch note nougat novel nozzle nugget number nursery nut
nutmeg nymph oak oar oasis oats ochre octave odour offset oil old olive onion onyx opal open orange orbit orchard
orchid order ore oregano organ oriole osier osprey otter ounce oval oven over oxbow oxeye oxlip oyster paddle paddock
page pail paint palette palm pane pannier pansy panther paper parade parcel park parlour parrot parsley parsnip
passage paste pasture path patina pattern pavilion paw peach peacock peak pearl pebble pecan pedal peel peg pelican
pelt pencil pennant penny peony pepper perch perfume perry petal petrel pewter pheasant phlox piano picket picnic pier
pigeon pigment pike pile pillar pillow pilot pink pinnacle pip pipit pit pitch pivot place plaid plain plank plant
plaque plaster platen plaza plea pleat plinth plot plough plover pluck plug plumb plume plush pod poem point polar
pole polish pollen pond pool poplar poppy port porter portico post posy potato pouch powder prairie prawn press pretty
prickle prim primer primrose print prism privet prize proof prose prow prune puddle puffin pulley pulp pulse puma
pumice pumpkin punch pure purl purple purse pyrite quail quarry quart quartz queen quench quern quest quick quiet
quill quilt quince quinoa quire quiver quoin quoit rabbit radish raft rain raisin rally ramble ramp ramson range
rapids rare rasp raven ravine raw reap red redwing reef regal reindeer relic relief relish resin rest retort reverse
rhubarb rhyme ribbon rich ridge rift rig rind ripe ripple rise river roam roast robe robin rock rocket rod roll roof
root rope rosemary rosette rosin rotor route rowan royal rubric ruby rudder rue rung runner rush russet rustic rut rye
sack saddle saffron sage salad salmon salsify salt salve samphire sand sandal sap sapling sapphire sash satchel satin
sauce saucer savory saw saxhorn scale scallop scarf scarlet scene scent school schooner scoop score scout scrap screen
screw scribe scroll scrub sculpt scythe sea seal season sedum seed seedling sepia sequin serge serif shade shadow
shaft shallot shanty shape shard sharp shawl sheaf shears shed sheen sheep shelf shell shelter sherry shield shine
shingle ship shirt shoal shop shore shovel show shrew shrub shuttle sickle side siding sienna sieve sigil signal silk
silver simmer single sinter siren sister size skate skein sketch skiff skin skirt sky slab slack slate sleek sleeve
sleigh slice slip slipper sloe sloop slope sluice smelt smith smock smoke smooth snail snipe snood snow soap socket
sod soft soil solar solder solid solstice song sorbet sorrel sound soup south spade span spaniel spark sparrow spear
speck speckle spelt sphere spice spider spin spinach spindle spinner spiral spire splint split spoke sponge spoon
sport spot sprat spray sprig spring sprout spruce spur square squash squid squill squirrel stable staff stag stain
stair stake stalk stall stamen stamp stand staple star starch starling stave steam steel steeple stem stencil step
stern stile still stint stipple stirrup stitch stoat stone stook stool stork storm stout stove strait strand straw
stream street string strip stripe stroke strong stucco stud stump sturgeon style suede sugar sulphur sultana sumac
summer summit sun sundew sundial surf swallow swan swarm swatch sway sweet swell swift swing sycamore syrup tablet
tadpole tail tailor talc tale tallow talon tamarind tandem tangle tankard tansy tapestry tapir target tarragon tart
tartan tassel tawny tea teak teal tease teasel teem tempera temple tench tender tendril tent tern terrace terrier
thatch theme thicket thimble thin thistle thong thorn thread three thrift throne thrush thumb thyme tick tidy tie tier
tiger tiller tilt timber tincture tinder tinsel toad toast toffee token tomato tongs tonic tool tooth top topaz torch
torrent tortoise toss touch tower town track trade trail tram trap tray treacle tread treble tree trefoil trek trellis
trench trestle trial tribe trinket trio tripod trivet troll trolley trough trout trowel truffle trug trumpet trunk
truss trust tuba tuber tuft tulip tumble tun tundra tune tunic tunnel turban turbine turf turmeric turnip turret
turtle tusk tussock tutor tweed twig twill twin twine twist type umbrella union upland upper urchin urn use valerian
valley valve van vanilla vapour varnish vase vat vault veil vellum velvet vendor veneer verbena verdant verge verse
vessel vest vetch viaduct vial vicar view villa vine vinegar vineyard viola violet violin viper visor vista vixen
voice volcano vole vow voyage waffle wagon wagtail walk wall wallet walnut waltz wand warbler warden warp warren wash
water wattle wave wax weald weather weave web wedge weed weevil weft weight weir weld whale wharf wheat wheel whelk
whirl whisk whistle white whiting whole wick wicker wicket widget wild willow window wing winter wire wise wisp
wisteria witch woad wolf wonder wood woodbine wool work world worm wrap wreath wren wrist yacht yam yard yarn yarrow
yeast yellow yeoman yew yield yoke yolk yonder zebra zenith zephyr zest zigzag zinc zinnia zither zone
`
  .trim()
  .split(/\s+/);
