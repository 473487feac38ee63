/* The decoder of a clip, and how it uses threads. */
#include "clip.h"

#define MOST_THREADS_FOR_ROWS 4 /* each row of an HEVC picture waits for the one above, so that more threads do better on several pictures */

/* The bits of a unit of an HEVC stream, without the bytes that keep start codes out of it. */
typedef struct {
    const uint8_t *data;
    int size, bit, zeros;
} Bits;

#define HEVC_PICTURE_PARAMETERS 34

static unsigned take_bit(Bits *b)
{
    unsigned bit;
    if (b->bit % 8 == 0 && b->bit > 0) {
        b->zeros = b->data[b->bit / 8 - 1] == 0 ? b->zeros + 1 : 0;
        if (b->zeros >= 2 && b->bit / 8 < b->size && b->data[b->bit / 8] == 3) {
            b->bit += 8;
            b->zeros = 0;
        }
    }
    if (b->bit / 8 >= b->size)
        return 0;
    bit = b->data[b->bit / 8] >> (7 - b->bit % 8) & 1;
    b->bit++;
    return bit;
}

static unsigned take_bits(Bits *b, int count)
{
    unsigned value = 0;
    while (count-- > 0)
        value = value << 1 | take_bit(b);
    return value;
}

/* An Exp-Golomb code; only whether it is 0 is ever asked, so its sign does not matter. */
static unsigned take_code(Bits *b)
{
    int zeros = 0;
    while (zeros < 32 && !take_bit(b))
        zeros++;
    return zeros < 32 ? (1u << zeros) - 1 + take_bits(b, zeros) : 0;
}

/* Whether a picture parameter set lets the rows of a picture be decoded side by side (ITU-T H.265, 7.3.2.3.1, up to
 * entropy_coding_sync_enabled_flag). */
static int has_rows_apart(const uint8_t *unit, int size)
{
    Bits b = {unit, size, 16, 0};
    if (size <= 2) /* no more than the unit's header */
        return 0;
    take_code(&b);     /* pps_pic_parameter_set_id */
    take_code(&b);     /* pps_seq_parameter_set_id */
    take_bits(&b, 7);  /* up to cabac_init_present_flag */
    take_code(&b);     /* num_ref_idx_l0_default_active_minus1 */
    take_code(&b);     /* num_ref_idx_l1_default_active_minus1 */
    take_code(&b);     /* init_qp_minus26 */
    take_bits(&b, 2);  /* constrained_intra_pred_flag, transform_skip_enabled_flag */
    if (take_bit(&b))  /* cu_qp_delta_enabled_flag */
        take_code(&b); /* diff_cu_qp_delta_depth */
    take_code(&b);     /* pps_cb_qp_offset */
    take_code(&b);     /* pps_cr_qp_offset */
    take_bits(&b, 5);  /* up to tiles_enabled_flag */
    return take_bit(&b);
}

/* Whether the stream's description holds such a set, in the arrays of ISO/IEC 14496-15, 8.3.3.1, or after start codes. */
static int says_rows_apart(const AVCodecParameters *about)
{
    const uint8_t *data = about->extradata;
    int size = about->extradata_size, at, arrays;
    if (size < 4)
        return 0;
    if (data[0] != 1) {
        for (at = 0; at + 5 < size; at++)
            if (!data[at] && !data[at + 1] && data[at + 2] == 1 && (data[at + 3] >> 1 & 63) == HEVC_PICTURE_PARAMETERS)
                return has_rows_apart(data + at + 3, size - at - 3);
        return 0;
    }
    if (size < 23)
        return 0;
    for (at = 23, arrays = data[22]; arrays > 0 && at + 3 <= size; arrays--) {
        int kind = data[at] & 63, units = data[at + 1] << 8 | data[at + 2];
        for (at += 3; units > 0 && at + 2 <= size; units--) {
            int length = data[at] << 8 | data[at + 1];
            at += 2;
            if (length > size - at)
                return 0;
            if (kind == HEVC_PICTURE_PARAMETERS)
                return has_rows_apart(data + at, length);
            at += length;
        }
    }
    return 0;
}

/* Whether a decoder shares one picture out among its threads as well as it would several. Then no frame waits for data of later ones,
 * which may turn out not to be wanted. */
static int shares_out_pictures(const AVCodecParameters *about, int threads)
{
    switch (about->codec_id) {
    case AV_CODEC_ID_PRORES:
    case AV_CODEC_ID_DNXHD:
    case AV_CODEC_ID_FFV1:
        return 1;
    case AV_CODEC_ID_HEVC:
        return threads <= MOST_THREADS_FOR_ROWS && says_rows_apart(about);
    default:
        return 0;
    }
}

int open_decoder(HbClip *clip, int threads, int one_by_one, const char *device)
{
    const AVCodec *decoder = avcodec_find_decoder(clip->stream->codecpar->codec_id);
    int code;
    if (!decoder)
        return AVERROR_DECODER_NOT_FOUND;
    if (!(clip->codec = avcodec_alloc_context3(decoder)))
        return AVERROR(ENOMEM);
    if ((code = avcodec_parameters_to_context(clip->codec, clip->stream->codecpar)) < 0)
        return code;
    clip->codec->pkt_timebase = clip->stream->time_base;
    clip->codec->max_pixels = MOST_PIXELS;
    clip->codec->thread_count = threads;
    if (one_by_one || shares_out_pictures(clip->stream->codecpar, threads))
        clip->codec->thread_type = FF_THREAD_SLICE;
    clip->device_format = AV_PIX_FMT_NONE;
    if (device)
        ask_device(clip, decoder, device);
    return avcodec_open2(clip->codec, decoder, NULL);
}

int64_t hb_clip_errors(const HbClip *clip, int64_t *first)
{
    *first = clip->first_error;
    return clip->errors;
}
