/* Decoding on a device. */
#include "clip.h"

#include <errno.h>
#include <stdio.h>

#include <libavutil/hwcontext.h>
#include <libavutil/pixdesc.h>

/* Takes the device's format if the decoder offers it, else the first that lies in main memory. */
static enum AVPixelFormat choose_format(AVCodecContext *codec, const enum AVPixelFormat *offered)
{
    HbClip *clip = codec->opaque;
    const enum AVPixelFormat *format;
    for (format = offered; *format != AV_PIX_FMT_NONE; format++)
        if (*format == clip->device_format)
            return *format;
    if (!clip->refusal[0])
        snprintf(clip->refusal, sizeof clip->refusal, "the device does not take this raster, chroma or depth");
    for (format = offered; *format != AV_PIX_FMT_NONE; format++)
        if (!(av_pix_fmt_desc_get(*format)->flags & AV_PIX_FMT_FLAG_HWACCEL))
            return *format;
    return AV_PIX_FMT_NONE;
}

void ask_device(HbClip *clip, const AVCodec *decoder, const char *device)
{
    enum AVHWDeviceType type = av_hwdevice_find_type_by_name(device);
    const AVCodecHWConfig *config;
    char why[96];
    int code;
    if (type == AV_HWDEVICE_TYPE_NONE) {
        snprintf(clip->refusal, sizeof clip->refusal, "these libraries know no device '%.40s'", device);
        return;
    }
    for (int i = 0;; i++) {
        if (!(config = avcodec_get_hw_config(decoder, i))) {
            snprintf(clip->refusal, sizeof clip->refusal, "there is no decoder of this codec for %.40s", device);
            return;
        }
        if (config->device_type == type && config->methods & AV_CODEC_HW_CONFIG_METHOD_HW_DEVICE_CTX)
            break;
    }
    if ((code = av_hwdevice_ctx_create(&clip->codec->hw_device_ctx, type, NULL, NULL, 0)) < 0) {
        av_strerror(code, why, sizeof why);
        snprintf(clip->refusal, sizeof clip->refusal, "%.30s cannot be opened: %.90s", device, why);
        return;
    }
    clip->device_format = config->pix_fmt;
    clip->codec->opaque = clip;
    clip->codec->get_format = choose_format;
}

const char *hb_clip_refusal(const HbClip *clip)
{
    return clip->refusal;
}

const char *hb_device_name(int index)
{
    enum AVHWDeviceType type = AV_HWDEVICE_TYPE_NONE;
    do
        type = av_hwdevice_iterate_types(type);
    while (type != AV_HWDEVICE_TYPE_NONE && index-- > 0);
    return av_hwdevice_get_type_name(type);
}

int hb_device_try(const char *device)
{
    AVBufferRef *context = NULL;
    enum AVHWDeviceType type = av_hwdevice_find_type_by_name(device);
    int code;
    av_log_set_level(AV_LOG_QUIET);
    if (type == AV_HWDEVICE_TYPE_NONE)
        return AVERROR(ENODEV);
    code = av_hwdevice_ctx_create(&context, type, NULL, NULL, 0);
    av_buffer_unref(&context);
    return code;
}
