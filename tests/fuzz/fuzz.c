/* Feeds the player's native layer mutated clips under AddressSanitizer and UBSan: opening, decoding, seeking, leaping, treating, copying.
 * Whatever a file says, the layer gives a picture or an error code; it never touches memory that is not its own and never hangs.
 *
 * fuzz SECONDS SEED CLIP...   mutates and splices the clips until the time is over (0: for 200 files), then tells how many it fed. */
#include "hardybench.h"

#include <signal.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <time.h>
#include <unistd.h>

#define MOST_SEEDS 256
#define LONGEST (4 << 20)
#define FILES_OF_A_SHORT_RUN 200
#define SLOWEST_FILE_SECONDS 60

typedef struct Seed {
    uint8_t *bytes;
    size_t size;
    int one_thread; /* the AV1 decoder of Debian 12 can stand still for good over a broken file with more */
} Seed;

static Seed seeds[MOST_SEEDS];
static int seed_count;
static uint64_t state;
static long opened, pictures, treated_pictures;

/* splitmix64, so that a seed gives the same files everywhere. */
static uint32_t draw(uint32_t below)
{
    uint64_t z = (state += 0x9e3779b97f4a7c15ull);
    z = (z ^ (z >> 30)) * 0xbf58476d1ce4e5b9ull;
    z = (z ^ (z >> 27)) * 0x94d049bb133111ebull;
    return below ? (uint32_t)((z ^ (z >> 31)) % below) : 0;
}

static int read_seed(const char *path)
{
    FILE *file = fopen(path, "rb");
    Seed *seed = &seeds[seed_count];
    if (!file)
        return -1;
    seed->bytes = malloc(LONGEST);
    seed->size = seed->bytes ? fread(seed->bytes, 1, LONGEST, file) : 0;
    fclose(file);
    seed->one_thread = strstr(path, "av1") != NULL;
    seed_count += seed->size > 64;
    return 0;
}

/* A clip with some of its bytes changed, cut, doubled, or taken from another. */
static size_t mutate(uint8_t *into, int *one_thread)
{
    const Seed *one = &seeds[draw((uint32_t)seed_count)];
    *one_thread = one->one_thread;
    size_t size = one->size;
    memcpy(into, one->bytes, size);
    for (uint32_t n = 1 + draw(12); n; n--) {
        /* Half of all changes near the start or the end, where containers keep their indexes. */
        size_t at = draw(2) ? draw((uint32_t)size) : draw(2) ? draw(size < 4096 ? (uint32_t)size : 4096) : size - 1 - draw(size < 8192 ? (uint32_t)size : 8192);
        size_t length = 1 + draw(1 << draw(14));
        if (length > size - at)
            length = size - at;
        switch (draw(7)) {
        case 0:
            into[at] ^= (uint8_t)(1u << draw(8));
            break;
        case 1:
            into[at] = draw(2) ? 0xff : 0;
            break;
        case 2:
            for (size_t i = 0; i < length; i++)
                into[at + i] = (uint8_t)draw(256);
            break;
        case 3:
            memset(into + at, draw(2) ? 0xff : 0, length > 8 ? 8 : length);
            break;
        case 4:
            if (at > 64)
                size = at;
            break;
        case 5:
            if (size + length < LONGEST) {
                memmove(into + at + length, into + at, size - at);
                size += length;
            }
            break;
        default: {
            const Seed *other = &seeds[draw((uint32_t)seed_count)];
            size_t from = draw((uint32_t)other->size);
            size_t piece = 1 + draw(1 << draw(18));
            if (piece > other->size - from)
                piece = other->size - from;
            if (piece > LONGEST - at)
                piece = LONGEST - at;
            memcpy(into + at, other->bytes + from, piece);
            if (at + piece > size)
                size = at + piece;
        }
        }
    }
    return size;
}

static void treat(const HbClipInfo *info, HbGraph **graph, HbFrame *frame, int64_t position)
{
    static const char *const descriptions[] = {
        "[in0]null[out]", "[in0]scale=64:36,format=yuv420p[out]", "[in0]eq=contrast=1.2,gblur=sigma=2[out]", "[in0]crop=16:16,hflip[out]",
    };
    if (!*graph) {
        HbInput input = { info->width, info->height, info->pixel_format, 25, 1 };
        if (hb_graph_open(descriptions[draw(4)], 1, &input, 1, NULL, graph) < 0) {
            *graph = NULL;
            return;
        }
    }
    HbFrame *inputs[1] = { frame };
    if (hb_graph_give(*graph, inputs, position) < 0)
        return;
    HbFrame *treated = NULL;
    while (hb_graph_take(*graph, &treated) == 0) {
        treated_pictures++;
        int32_t width, height, format;
        int64_t moment;
        hb_frame_about(treated, &width, &height, &format, &moment);
        int size = hb_frame_copy(treated, NULL, 0);
        if (size > 0 && size < (64 << 20)) {
            uint8_t *bytes = malloc((size_t)size);
            if (bytes)
                hb_frame_copy(treated, bytes, size);
            free(bytes);
        }
        uint8_t jpeg[1 << 16];
        if (!draw(8))
            hb_frame_jpeg(treated, 160, jpeg, sizeof jpeg);
        hb_frame_free(treated);
        treated = NULL;
    }
}

static void feed(const char *path, int one_thread)
{
    HbOpening how = { .stream = draw(4) ? -1 : (int32_t)draw(3), .threads = one_thread ? 1 : 1 + (int32_t)draw(2), .one_by_one = (int32_t)draw(2), .held_back = draw(2) ? -1 : (int32_t)draw(20) };
    if (how.held_back >= 0) {
        how.has_start = how.rate_numerator = how.rate_denominator = 1;
        how.stream = (int32_t)draw(2);
    }
    if (draw(2)) {
        how.rate_numerator = (int32_t)draw(120) + 1;
        how.rate_denominator = draw(4) ? 1 : (int32_t)draw(1001) + 1;
        how.has_start = 1;
        how.start = (int64_t)draw(100000) - 1000;
        how.frame_count = draw(200);
    }
    HbClip *clip = NULL;
    HbClipInfo info = { 0 };
    if (hb_clip_open(path, &how, NULL, &clip, &info) < 0)
        return;
    opened++;
    int64_t keys[64];
    hb_clip_keys(clip, keys, 64);
    HbGraph *graph = NULL;
    for (int step = 0; step < 24; step++) {
        switch (draw(13)) {
        case 0:
            hb_clip_seek(clip, draw(300));
            break;
        case 1:
            hb_clip_leap(clip, draw(300));
            break;
        case 3:
            for (int64_t more = draw(100), at = draw(100); more > 0; more--)
                hb_clip_want(clip, at += draw(4));
            break;
        case 2:
            hb_clip_skip_unreferenced(clip, draw(2) ? draw(100) : 0);
            break;
        default: {
            HbFrame *frame = NULL;
            int64_t number = 0, next = 0, first = 0;
            HbTimes times;
            int code = hb_clip_next(clip, &frame, &number, &next, &times);
            hb_clip_errors(clip, &first);
            if (code < 0) {
                step = 24;
                break;
            }
            pictures++;
            treat(&info, &graph, frame, number);
            hb_frame_free(frame);
        }
        }
    }
    hb_graph_close(graph);
    hb_clip_close(clip);
}

static void too_slow(int signal)
{
    (void)signal;
    static const char words[] = "fuzz: one file took longer than a minute; it is left where it lies\n";
    (void)!write(2, words, sizeof words - 1);
    _exit(3);
}

int main(int count, char **arguments)
{
    if (count < 4) {
        fprintf(stderr, "fuzz SECONDS SEED CLIP...\n");
        return 2;
    }
    int seconds = atoi(arguments[1]);
    state = strtoull(arguments[2], NULL, 10);
    for (int i = 3; i < count && seed_count < MOST_SEEDS; i++)
        if (read_seed(arguments[i]) < 0)
            fprintf(stderr, "fuzz: %s cannot be read\n", arguments[i]);
    if (!seed_count) {
        fprintf(stderr, "fuzz: there is no clip to begin with\n");
        return 2;
    }
    const char *folder = getenv("TMPDIR");
    char path[512];
    snprintf(path, sizeof path, "%s/hardybench-fuzz-%d.bin", folder ? folder : "/tmp", getpid());
    uint8_t *bytes = malloc(2 * LONGEST);
    if (!bytes)
        return 2;
    signal(SIGALRM, too_slow);
    time_t end = time(NULL) + seconds;
    long fed = 0;
    while (seconds > 0 ? time(NULL) < end : fed < FILES_OF_A_SHORT_RUN) {
        int one_thread = 0;
        size_t size = mutate(bytes, &one_thread);
        FILE *file = fopen(path, "wb");
        if (!file || fwrite(bytes, 1, size, file) != size)
            return 2;
        fclose(file);
        alarm(SLOWEST_FILE_SECONDS);
        feed(path, one_thread);
        alarm(0);
        fed++;
    }
    unlink(path);
    free(bytes);
    for (int i = 0; i < seed_count; i++)
        free(seeds[i].bytes);
    printf("%ld mutated clips fed from %d: %ld opened, %ld pictures, %ld treated; nothing found\n", fed, seed_count, opened, pictures, treated_pictures);
    /* A run in which hardly anything could be opened has tried nothing. */
    return opened * 10 < fed ? 4 : 0;
}
