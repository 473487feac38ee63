/* Opening a clip: the file, its stream, what is known of it. */
#include "clip.h"

#include <stdlib.h>
#include <string.h>

#define MOST_STREAMS "64"

/* What may be opened: files, in containers that hold pictures themselves. Lists of other files, playlists and numbered pictures
 * would lead out of the file, and bare streams have no time stamps. */
#define PROTOCOLS "file"
#define CONTAINERS "mov,mp4,m4a,3gp,3g2,mj2,matroska,webm,mpegts,mpeg,mxf,avi,asf,flv,ogg,ivf,dv,png_pipe,jpeg_pipe,j2k_pipe," \
    "tiff_pipe,dpx_pipe,exr_pipe,bmp_pipe,gif,yuv4mpegpipe"

/* As many as H.264 and HEVC allow (ITU-T H.264, A.3.1 h; H.265, A.4.2). */
enum { MOST_HELD_BACK = 16 };

static int is_over(void *opaque)
{
    const HbClip *clip = opaque;
    return clip->given_up || now_ns() > clip->deadline_ns;
}

void hb_clip_give_up(HbClip *clip)
{
    clip->given_up = 1;
}

/* Whether nothing has to be found out by decoding the first frames, which takes some tenths of a second of AVC: it was when the file was
 * looked into, and this container says the rest itself. */
static int is_known(const HbClip *clip, const HbOpening *how)
{
    const char *name = clip->format->iformat->name;
    const AVCodecParameters *about;
    if (!how || how->stream < 0 || (unsigned)how->stream >= clip->format->nb_streams || how->rate_numerator <= 0 || !how->has_start || how->held_back < 0 || how->held_back > MOST_HELD_BACK)
        return 0;
    about = clip->format->streams[how->stream]->codecpar;
    if (strncmp(name, "mov,", 4) || about->codec_id == AV_CODEC_ID_NONE || about->width <= 0 || about->height <= 0)
        return 0;
    clip->format->streams[how->stream]->codecpar->video_delay = how->held_back;
    return 1;
}

int open_file(HbClip *clip, const HbOpening *how)
{
    AVDictionary *options = NULL, **each = NULL;
    unsigned streams;
    int code = AVERROR(ENOMEM);
    if (!(clip->format = avformat_alloc_context()))
        return code;
    clip->format->interrupt_callback = (AVIOInterruptCB){is_over, clip};
    begin_call(clip);
    if (av_dict_set(&options, "protocol_whitelist", PROTOCOLS, 0) < 0 || av_dict_set(&options, "format_whitelist", CONTAINERS, 0) < 0
        || av_dict_set(&options, "max_streams", MOST_STREAMS, 0) < 0)
        goto done;
    if ((code = avformat_open_input(&clip->format, clip->path, NULL, &options)) < 0)
        goto done;
    if (is_known(clip, how))
        goto done;
    streams = clip->format->nb_streams;
    if (streams > 0 && !(each = av_calloc(streams, sizeof *each))) {
        code = AVERROR(ENOMEM);
        goto done;
    }
    for (unsigned i = 0; i < streams; i++) {
        av_dict_set_int(&each[i], "max_pixels", MOST_PIXELS, 0);
        av_dict_set(&each[i], "threads", "1", 0);
    }
    code = avformat_find_stream_info(clip->format, each);
    for (unsigned i = 0; i < streams; i++)
        av_dict_free(&each[i]);
done:
    av_freep(&each);
    av_dict_free(&options);
    return code;
}

int choose_stream(HbClip *clip, int wanted)
{
    int index = wanted >= 0 ? wanted : av_find_best_stream(clip->format, AVMEDIA_TYPE_VIDEO, -1, -1, NULL, 0);
    const AVCodecParameters *about;
    if (index < 0)
        return HB_NO_VIDEO;
    if ((unsigned)index >= clip->format->nb_streams)
        return HB_OTHER_STREAM;
    clip->stream = clip->format->streams[index];
    about = clip->stream->codecpar;
    if (about->codec_type != AVMEDIA_TYPE_VIDEO)
        return HB_OTHER_STREAM;
    if (about->width <= 0 || about->height <= 0 || (int64_t)about->width * about->height > MOST_PIXELS
        || clip->stream->time_base.num <= 0 || clip->stream->time_base.den <= 0)
        return HB_NO_VIDEO;
    for (unsigned i = 0; i < clip->format->nb_streams; i++)
        clip->format->streams[i]->discard = (int)i == index ? AVDISCARD_DEFAULT : AVDISCARD_ALL;
    return 0;
}

int hb_clip_open(const char *path, const HbOpening *how, const char *device, HbClip **out, HbClipInfo *info)
{
    HbClip *clip = av_mallocz(sizeof *clip);
    int code = AVERROR(ENOMEM);
    *out = NULL;
    if (!clip)
        return code;
    av_log_set_level(AV_LOG_QUIET);
    clip->highest = -1;
    if (!(clip->path = av_strdup(path)) || !(clip->packet = av_packet_alloc()))
        goto failed;
    if ((code = open_file(clip, how)) < 0 || (code = choose_stream(clip, how->stream)) < 0)
        goto failed;
    clip->rate = how->rate_numerator > 0 && how->rate_denominator > 0
        ? (AVRational){how->rate_numerator, how->rate_denominator}
        : av_guess_frame_rate(clip->format, clip->stream, NULL);
    if (clip->rate.num <= 0 || clip->rate.den <= 0 || av_q2d(clip->rate) > 10000) {
        code = HB_NO_VIDEO;
        goto failed;
    }
    clip->has_start = how->has_start;
    clip->start = how->has_start ? how->start : clip->stream->start_time == AV_NOPTS_VALUE ? 0 : clip->stream->start_time;
    clip->last_stamp = clip->start;
    clip->frame_count = how->frame_count > 0 ? how->frame_count : clip->stream->nb_frames;
    if ((code = open_decoder(clip, how->threads, how->one_by_one, device)) < 0)
        goto failed;
    info->width = clip->stream->codecpar->width;
    info->height = clip->stream->codecpar->height;
    info->rate_numerator = clip->rate.num;
    info->rate_denominator = clip->rate.den;
    info->pixel_format = clip->stream->codecpar->format;
    info->frame_count = clip->frame_count;
    info->frames_at_once = clip->codec->active_thread_type & FF_THREAD_FRAME ? clip->codec->thread_count : 1;
    info->key_count = avformat_index_get_entries_count(clip->stream);
    *out = clip;
    return 0;
failed:
    hb_clip_close(clip);
    return code;
}

static int ascending(const void *a, const void *b)
{
    int64_t x = *(const int64_t *)a, y = *(const int64_t *)b;
    return (x > y) - (x < y);
}

int hb_clip_keys(HbClip *clip, int64_t *frames, int capacity)
{
    int entries = avformat_index_get_entries_count(clip->stream), count = 0;
    for (int i = 0; i < entries && count < capacity; i++) {
        /* An index holds decoding times; those of frames that stand alone differ from showing times by the
         * stream's constant delay, which the first entry tells. */
        const AVIndexEntry *first = avformat_index_get_entry(clip->stream, 0);
        const AVIndexEntry *entry = avformat_index_get_entry(clip->stream, i);
        if (entry->flags & AVINDEX_KEYFRAME)
            frames[count++] = frame_in_loop(clip, entry->timestamp - first->timestamp + clip->start);
    }
    qsort(frames, count, sizeof *frames, ascending);
    return count;
}

void hb_clip_close(HbClip *clip)
{
    if (!clip)
        return;
    av_packet_free(&clip->packet);
    avcodec_free_context(&clip->codec);
    avformat_close_input(&clip->format);
    av_freep(&clip->path);
    av_free(clip);
}
